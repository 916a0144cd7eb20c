import { restingExposure } from "@/core/passes/exposure/fields";
import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { SRGB_CURVE, toLinear, srgbEncode } from "@/core/colour/transferCurve";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { exposedZone, type ExposureSettings } from "@/core/passes/exposure/exposure";
import { orderedStops } from "@/core/steps/orderedStops";
import { openGate, type Gate } from "@/core/gate/gate";
import { READY_GATES } from "@/core/gate/readyGates";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { Stage } from "@/engine/stage/stage";
import { anyStrands } from "../anyPlan";
import { anyGate } from "../anyRegion";
import { anyNumber } from "../anyNumber";

// One law for the order of tones, whichever way a pass comes to a place: in the open, through a region, painted.

/** A wedge of tones across, the same in every row. */
const [COLUMNS, ROWS] = [512, 3];
const wedge = Uint16Array.from({ length: 3 * COLUMNS * ROWS }, (_, i) => {
  const column = Math.floor(i / 3) % COLUMNS;
  return Math.round(65535 * srgbEncode(toneToLuminance(column / (COLUMNS - 1))));
});
const entering = Array.from({ length: COLUMNS }, (_, x) => 10 * luminanceToTone(toLinear(SRGB_CURVE, wedge[3 * x]! / 65535)));

/** The zones that a plan brings the wedge to. */
function printed(plan: Plan): number[] {
  const stage = Stage.fromLevels(wedge, { width: COLUMNS, height: ROWS }, SRGB_SPACE);
  stage.update(compilePlan(plan), undefined);
  const tones = stage.tonesAfter(plan.passes.length);
  return Array.from({ length: COLUMNS }, (_, x) => 10 * tones[COLUMNS + x]!);
}

/** Holds the whole frame, as a region or as one stroke. */
const everywhere = {
  radius: 1,
  hardness: 1,
  flow: 1,
  pressure: "none",
  erase: false,
  path: packPath([{ x: 0.5, y: 0, pressure: 1 }]),
} as const;
const whole = (density: number) => ({
  ...emptyRegion("whole", "Whole"),
  shapes: [{ id: "g", combine: "add" as const, kind: "gradient" as const, from: { x: 0, y: 9 }, to: { x: 0, y: 10 }, twoSided: false }],
  density,
});

type Way = "plain" | "masked" | "painted";
function planOf(pass: Partial<Pass>, move: Move, way: Way, density = 1): Plan {
  const made = { ...restingPass(move.kind, "pass", "Pass"), ...pass, move };
  if (way === "painted" && move.kind === "exposure") {
    const painted = { ...move, flat: 0, strokes: [{ ...everywhere, burns: move.flat < 0, ceiling: Math.abs(move.flat) }] };
    return { ...defaultPlan(), passes: [{ ...made, move: painted }] };
  }
  return {
    ...defaultPlan(),
    regions: way === "masked" ? [whole(density)] : [],
    passes: [{ ...made, region: way === "masked" ? "whole" : null }],
  };
}

const exposure = (settings: Partial<ExposureSettings>): Move => ({ kind: "exposure", ...restingExposure(), ...settings });
const furthest = (a: number[], b: number[]) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

/** How far tones fall below one that entered darker, in zones. */
function reversal(zones: number[]): number {
  let [highest, most] = [-Infinity, 0];
  for (const zone of zones) {
    highest = Math.max(highest, zone);
    most = Math.max(most, highest - zone);
  }
  return most;
}
/** Hundredths of a zone that nobody sees: what tables read between their knots may err by. */
const IN_ORDER = 0.002;

describe("stops in the open, through a region that holds the whole frame, and painted over all of it are the same", () => {
  test.each([
    ["with a zone off", { zonesOff: [5] }, -1.5, false],
    ["with zones off, lighter", { zonesOff: [2, 6] }, 2, false],
    ["with the ends held", {}, -3, true],
    ["with the ends held, lighter", {}, 3, true],
    ["through a hard gate", { gate: { ...openGate(), from: 6, to: 8, low: 0.3, high: 0.3 } }, -1, true],
    ["at twice the strength", { strength: 2, zonesOff: [5] }, -1, true],
  ] as [string, Partial<Pass>, number, boolean][])("%s", (_, pass, flat, endsHeld) => {
    const [plain, masked, painted] = (["plain", "masked", "painted"] as const).map((way) =>
      printed(planOf(pass, exposure({ flat, endsHeld }), way)),
    );
    expect(furthest(plain!, entering)).toBeGreaterThan(0.5); // it does something
    // Between fewer knots beside a shoulder, and between rows of stops beside tones that are held.
    expect(furthest(plain!, masked!)).toBeLessThan(0.01);
    expect(furthest(plain!, painted!)).toBeLessThan(0.04);
    for (const zones of [plain!, masked!, painted!]) expect(reversal(zones)).toBeLessThan(IN_ORDER);
  });

  test.each(["plain", "masked", "painted"] as const)("%s, the tones of a zone that is off stay to a thousandth", (way) => {
    const zones = printed(planOf({ zonesOff: [5] }, exposure({ flat: -2, endsHeld: false }), way));
    zones.forEach((zone, x) => Math.abs(entering[x]! - 5) < 0.48 && expect(Math.abs(zone - entering[x]!)).toBeLessThan(1e-3));
  });
});

test.each(READY_GATES.flatMap((ready) => [-1, 1].map((flat) => [ready.name, ready.gate, flat] as const)))(
  "%s at %s keeps the order at %d stop",
  (_, gate, flat) => {
    for (const way of ["plain", "masked", "painted"] as const)
      expect(reversal(printed(planOf({ gate }, exposure({ flat }), way)))).toBeLessThan(IN_ORDER);
  },
);

const anyOrderedMove: fc.Arbitrary<Move> = fc.oneof(
  fc
    .record({
      flat: anyNumber(-4, 4),
      zones: fc.oneof(fc.constant(Array<number>(11).fill(0)), fc.array(anyNumber(-2, 2), { minLength: 11, maxLength: 11 })),
      endsHeld: fc.boolean(),
    })
    .map(exposure),
  anyStrands().map((strands): Move => ({ kind: "placement", strands })),
  fc
    .record({ around: anyNumber(0, 10), grade: anyNumber(-1, 5) })
    .map((settings): Move => ({ kind: "contrast", ...settings, black: 0, white: 10 })),
);

const enteringGate: fc.Arbitrary<Gate> = anyGate.map((gate) => ({ ...gate, source: "entering", blur: 0, hue: null, repair: [] }));

const kept = ["multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn", "hard-light", "soft-light"] as const;

test.each([
  ["normally", fc.constant("normal" as const), 161, 400],
  ["by blends that keep the order themselves", fc.constantFrom(...kept), 163, 300],
] as const)(
  "any kind of pass that meets the print %s, through any gate, with any zones off, at any strength, keeps the order",
  (_, blend, seed, numRuns) => {
    fc.assert(
      fc.property(
        anyOrderedMove,
        fc.record({
          blend,
          gate: fc.option(enteringGate),
          zonesOff: fc.oneof(fc.constant<number[]>([]), fc.subarray([...Array(11).keys()])),
          strength: anyNumber(0, 2),
        }),
        fc.constantFrom<Way>("plain", "masked", "painted"),
        fc.constantFrom(1, 0.6, 0.2),
        (move, pass, way, density) => {
          expect(reversal(printed(planOf(pass, move, way, density)))).toBeLessThan(IN_ORDER);
        },
      ),
      { seed, numRuns },
    );
  },
);

describe("a gate that was repaired by brush", () => {
  const repaired = (gate: Gate, flow: number, erase: boolean): Gate => ({ ...gate, repair: [{ ...everywhere, flow, erase }] });
  const hard = { ...openGate(), from: 6, to: 8, low: 0.3, high: 0.3 };

  test("keeps the order at every stage of a repair, whatever the pass", () => {
    fc.assert(
      fc.property(
        anyOrderedMove,
        fc.record({ zonesOff: fc.subarray([...Array(11).keys()], { maxLength: 3 }), strength: anyNumber(0, 2) }),
        fc.oneof(fc.constant(hard), enteringGate),
        fc.tuple(anyNumber(0.02, 1), fc.boolean()),
        fc.constantFrom<Way>("plain", "masked", "painted"),
        fc.constantFrom(1, 0.6),
        (move, pass, gate, [flow, erase], way, density) => {
          expect(reversal(printed(planOf({ ...pass, gate: repaired(gate, flow, erase) }, move, way, density)))).toBeLessThan(IN_ORDER);
        },
      ),
      { seed: 164, numRuns: 300 },
    );
  });

  test.each([
    ["exposure", exposure({ flat: -0.4 })],
    ["contrast", { kind: "contrast", around: 5, grade: 4, black: 0, white: 10 } as Move],
  ])("%s: painted wholly open it acts as without a gate, wholly shut not at all, and half as half", (_, move) => {
    // So soft that nothing needs to be held.
    const soft = { ...openGate(), from: 6, to: 8, low: 1.5, high: 1.5 };
    const open = printed(planOf({}, move, "masked"));
    const throughGate = printed(planOf({ gate: soft }, move, "masked"));
    expect(furthest(printed(planOf({ gate: repaired(soft, 1, false) }, move, "masked")), open)).toBeLessThan(0.005);
    expect(furthest(printed(planOf({ gate: repaired(soft, 1, true) }, move, "masked")), entering)).toBeLessThan(0.005);
    const half = printed(planOf({ gate: repaired(soft, 0.5, false) }, move, "masked"));
    const middle = entering.findIndex((zone) => zone >= 7);
    expect(Math.abs(half[middle]! - throughGate[middle]!)).toBeLessThan(0.01); // open there already: nothing is added
    const dark = entering.findIndex((zone) => zone >= 3);
    const share = (half[dark]! - entering[dark]!) / (open[dark]! - entering[dark]!);
    expect(share).toBeGreaterThan(0.4);
    expect(share).toBeLessThan(0.6);
  });
});

test("burned edges keep the order of the tones of a place, on bare paper and off it", () => {
  const size = { width: 8, height: 8 };
  const drawn = fc.record({
    gate: fc.option(enteringGate),
    zonesOff: fc.subarray([...Array(11).keys()], { maxLength: 4 }),
    strength: anyNumber(0, 2),
  });
  fc.assert(
    fc.property(drawn, anyNumber(-4, 4), fc.boolean(), (pass, stops, onPaper) => {
      const move: Move = { kind: "edge-burn", stops, x: 0, y: 0, begins: 0, straight: 1, onPaper };
      const compiled = compilePlan(planOf(pass, move, "plain"));
      const corners = Array.from({ length: 40 }, (_, i) => {
        const stage = Stage.fromLevels(new Uint16Array(3 * 64).fill(wedge[3 * Math.round((i * 511) / 39)]!), size, SRGB_SPACE);
        stage.update(compiled, undefined);
        return 10 * stage.tonesAfter(1)[0]!;
      });
      expect(reversal(corners)).toBeLessThan(IN_ORDER);
    }),
    { seed: 162, numRuns: 40 },
  );
});

test("burned edges leave the tones of zones that are off, and act through a gate", () => {
  const size = { width: 8, height: 8 };
  const corner = (pass: Partial<Pass>, zone: number) => {
    const level = wedge[3 * Math.round((511 * zone) / 10)]!;
    const stage = Stage.fromLevels(new Uint16Array(3 * 64).fill(level), size, SRGB_SPACE);
    stage.update(
      compilePlan(planOf(pass, { kind: "edge-burn", stops: -1, x: 0, y: 0, begins: 0, straight: 1, onPaper: true }, "plain")),
      undefined,
    );
    return 10 * stage.tonesAfter(1)[0]!;
  };
  expect(corner({}, 5)).toBeLessThan(4);
  expect(corner({ zonesOff: [5] }, 5)).toBeCloseTo(5, 1);
  expect(corner({ zonesOff: [5] }, 7.5)).toBeLessThan(7);
  const lights = { ...openGate(), from: 8, to: 10, low: 1, high: 0 };
  expect(corner({ gate: lights }, 5)).toBeCloseTo(5, 1);
  expect(corner({ gate: lights }, 9.5)).toBeLessThan(9);
});

test("stops by zone are let through by a mask as all others are", () => {
  const zones = Array<number>(11).fill(0).with(5, 0.6);
  const through = (density: number) => printed(planOf({}, exposure({ zones, endsHeld: false }), "masked", density));
  const middle = entering.findIndex((zone) => zone >= 5);
  for (const density of [1, 0.5, 0.2]) expect(through(density)[middle]).toBeCloseTo(exposedZone(entering[middle]!, density * 0.6), 2);
});

test("on bare paper the law is that of log light: the lightest tones may not be drawn past one another there", () => {
  const { reaching } = orderedStops(1000, { share: (t) => (t > 0.97 ? 1 : t < 0.93 ? 0 : (t - 0.93) / 0.04), onPaper: true });
  const stops = reaching(-2);
  let before = -1;
  stops.forEach((stop, k) => {
    const lit = toneToLuminance(k / 1000) * 2 ** stop;
    expect(lit).toBeGreaterThanOrEqual(before - 1e-9);
    before = lit;
  });
  expect(stops.at(-1)).toBeLessThan(-0.05);
});

test("what is painted and what is given flat add up, at the strength of the pass", () => {
  const strokes = [{ ...everywhere, burns: false, ceiling: 1 }];
  const both = printed(planOf({ strength: 0.5 }, exposure({ flat: -0.4, endsHeld: false, strokes }), "plain"));
  both.forEach((zone, x) => expect(Math.abs(zone - exposedZone(entering[x]!, 0.5 * (1 - 0.4)))).toBeLessThan(2e-3));
});
