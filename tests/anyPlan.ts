import { balanceFields } from "@/core/passes/balance/fields";
import { colourReturnFields } from "@/core/passes/colour-return/fields";
import { contrastMaskFields } from "@/core/passes/contrast-mask/fields";
import { edgeBurnFields } from "@/core/passes/edge-burn/fields";
import { reliefFields } from "@/core/passes/relief/fields";
import { sceneLightFields } from "@/core/passes/scene-light/fields";
import { sharpenFields } from "@/core/passes/sharpen/fields";
import { softenFields } from "@/core/passes/soften/fields";
import type { NumberField } from "@/core/passes/fields";
import type { Move } from "@/core/passes/moves";
import fc from "fast-check";
import { MOST_TINT_CHROMA } from "@/core/passes/tint/move";
import { MOST_DEGREES, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import { LEAST_HUE_GAP, type HueKnot } from "@/core/mix/hueCurve";
import { LEAST_GAP, type Strand } from "@/core/passes/placement/strand";
import { BLEND_MODES } from "@/core/blend/blend";
import { packPath } from "@/core/brush/stroke";
import { SPOT_KINDS } from "@/core/spots/spot";
import { PLAN_VERSION, type Plan } from "@/core/plan/plan";

import { anyGate, anyRegion, anyStroke, small } from "./anyRegion";
import { anyNumber } from "./anyNumber";

// Any valid plan, for property tests.

const unit = anyNumber(0, 1);
const zone = anyNumber(0, 10);

/** Any valid strands: two to eight, some of them holds. */
export function anyStrands(): fc.Arbitrary<Strand[]> {
  return fc.array(fc.record({ from: zone, to: zone, isHold: fc.boolean() }), { minLength: 2, maxLength: 8 }).map((drafts) => {
    const froms = drafts.map(({ from }) => from).sort((a, b) => a - b);
    for (let i = 1; i < froms.length; i++) froms[i] = Math.max(froms[i]!, froms[i - 1]! + LEAST_GAP);
    const excess = Math.max(froms[froms.length - 1]! - 10, 0);
    const shifted = froms.map((from) => Math.max(from - excess, 0));
    for (let i = 1; i < shifted.length; i++) shifted[i] = Math.max(shifted[i]!, shifted[i - 1]! + LEAST_GAP);
    let floor = 0;
    return shifted.map((from, i) => {
      const wanted = drafts[i]!.isHold ? from : drafts[i]!.to;
      floor = Math.max(floor, wanted);
      return { from, to: floor };
    });
  });
}

const knots: fc.Arbitrary<HueKnot[]> = fc
  .array(fc.record({ hueDeg: anyNumber(0, 357), stops: anyNumber(-3, 3) }), {
    maxLength: 8,
  })
  .map((made) => {
    const ordered = made.toSorted((a, b) => a.hueDeg - b.hueDeg);
    return ordered.filter((knot, i) => i === 0 || knot.hueDeg - ordered[i - 1]!.hueDeg >= 2 * LEAST_HUE_GAP);
  });

/** Any numbers that a move may have. */
function anyNumbers<F extends Readonly<Record<string, NumberField>>>(fields: F): fc.Arbitrary<{ [N in keyof F]: number }> {
  const each = Object.entries(fields).map(([name, { least, most }]) => [name, anyNumber(least, most)] as const);
  return fc.record(Object.fromEntries(each)) as fc.Arbitrary<{ [N in keyof F]: number }>;
}

const anyTinge = fc.record({ a: anyNumber(-0.3, 0.3), b: anyNumber(-0.3, 0.3) });
/** Any move before the mix. */
const anyColourMove: fc.Arbitrary<Move> = fc.oneof(
  anyNumbers(sceneLightFields).map((settings) => ({ kind: "scene-light" as const, ...settings })),
  anyNumbers(balanceFields).map((settings) => ({ kind: "balance" as const, ...settings })),
  fc
    .record({
      saturation: anyNumber(0, 2),
      ranges: fc.array(
        fc.record({ hueDeg: anyNumber(0, 359), widthDeg: anyNumber(10, 120), turnDeg: anyNumber(-60, 60), chroma: anyNumber(0, 2) }),
        { maxLength: 3 },
      ),
      parting: fc.option(fc.record({ stays: anyTinge, moves: anyTinge, held: fc.option(anyTinge), amount: anyNumber(-1, 2) })),
    })
    .map((settings) => ({ kind: "separation" as const, ...settings })),
);

const weight = anyNumber(-2, 2);
const anyToneMove: fc.Arbitrary<Move> = fc.oneof(
  fc
    .record({
      weights: fc.record({ red: weight, green: weight, blue: weight }),
      sumHeld: fc.boolean(),
      huesOn: fc.boolean(),
      hueKnots: knots,
    })
    .map((settings) => ({ kind: "another-mix" as const, ...settings })),
  fc
    .record({
      strokes: fc.array(
        fc.tuple(anyStroke, fc.boolean(), anyNumber(0, 3)).map(([stroke, burns, ceiling]) => ({ ...stroke, burns, ceiling })),
        { maxLength: 4 },
      ),
      dodge: unit.map((u) => 2 * u),
      burn: unit.map((u) => 2 * u),
      flat: anyNumber(-4, 4),
      zones: fc.array(anyNumber(-4, 4), { minLength: 11, maxLength: 11 }),
      soften: small(0.05),
      limit: fc.option(anyNumber(0.1, 3)),
      endsHeld: fc.boolean(),
    })
    .map((settings) => ({ kind: "exposure" as const, ...settings })),
  fc.tuple(anyNumbers(edgeBurnFields), fc.boolean()).map(([numbers, onPaper]) => ({ kind: "edge-burn" as const, ...numbers, onPaper })),
  anyStrands().map((strands) => ({ kind: "placement" as const, strands })),
  fc
    .record({
      around: zone,
      grade: anyNumber(-1, 5),
      black: anyNumber(0, 4),
      white: anyNumber(5, 10),
    })
    .map((settings) => ({ kind: "contrast" as const, ...settings })),
  fc.tuple(anyNumbers(contrastMaskFields), fc.boolean()).map(([numbers, edges]) => ({ kind: "contrast-mask" as const, ...numbers, edges })),
  anyNumbers(reliefFields).map((settings) => ({ kind: "relief" as const, ...settings })),
  fc
    .tuple(anyNumbers(softenFields), fc.constantFrom("all" as const, "lights" as const))
    .map(([numbers, spreads]) => ({ kind: "soften" as const, ...numbers, spreads })),
  anyNumbers(sharpenFields).map((settings) => ({ kind: "sharpen" as const, ...settings })),
  fc
    .record({
      points: fc
        .uniqueArray(fc.integer({ min: 0, max: 20 }), { minLength: 1, maxLength: 6 })
        .chain((places) =>
          fc.tuple(
            ...places
              .toSorted((a, b) => a - b)
              .map((place) =>
                fc.record({ zone: fc.constant(place / 2), hueDeg: anyNumber(0, 360), chroma: anyNumber(0, MOST_TINT_CHROMA) }),
              ),
          ),
        ),
      replaces: fc.boolean(),
    })
    .map((settings) => ({ kind: "tint" as const, ...settings })),
  anyNumbers(colourReturnFields).map((settings) => ({ kind: "colour-return" as const, ...settings })),
);

/** Any valid frame, one that cuts nothing among them. */
export const anyFrame: fc.Arbitrary<Frame> = fc.record({
  turns: fc.constantFrom(0 as const, 1 as const, 2 as const, 3 as const),
  degrees: fc.oneof(fc.constant(0), anyNumber(-MOST_DEGREES, MOST_DEGREES)),
  mirrored: fc.boolean(),
  crop: fc.option(
    fc.record({ x: anyNumber(-0.2, 1.2), y: anyNumber(-0.2, 1.2), width: anyNumber(0.01, 1.4), height: anyNumber(0.01, 1.4) }),
  ),
});

const strength = unit.map((u) => 2 * u);
const zonesOff = fc.oneof(fc.constant<number[]>([]), fc.subarray([...Array(11).keys()]));
const anyPassOf = (anyMove: fc.Arbitrary<Move>) =>
  fc.record({
    on: fc.boolean(),
    strength,
    blend: fc.constantFrom(...BLEND_MODES),
    zonesOff,
    /** One of the plan's regions, or none. */
    regionAt: fc.nat(4),
    gate: fc.option(anyGate),
    move: anyMove,
  });

const away = anyNumber(-0.5, 0.5);
const anySpot = fc.record({
  kind: fc.constantFrom(...SPOT_KINDS),
  path: fc
    .array(fc.record({ x: anyNumber(-0.1, 1.1), y: anyNumber(-0.1, 1.1), pressure: fc.constant(1) }), { minLength: 1, maxLength: 3 })
    .map(packPath),
  radius: anyNumber(0.0001, 0.1),
  softness: unit,
  from: fc.record({ x: away, y: away }),
});

/** Any valid plan. */
export function anyPlan(): fc.Arbitrary<Plan> {
  const drafts = fc.record({
    spots: fc.array(anySpot, { maxLength: 3 }),
    mix: fc.record({
      // Cleaned colour has to be made first: tests/engine/clean.test.ts.
      clean: fc.constant(0),
      strength: unit.map((u) => 2 * u),
      weightsOn: fc.boolean(),
      weights: fc.record({ red: weight, green: weight, blue: weight }),
      sumHeld: fc.boolean(),
      huesOn: fc.boolean(),
      hueKnots: knots,
    }),
    regions: fc.array(anyRegion, { maxLength: 2 }),
    before: fc.array(anyPassOf(anyColourMove), { maxLength: 2 }),
    after: fc.array(anyPassOf(anyToneMove), { maxLength: 4 }),
    /** The passes from the first to before the second are a set, if there are any. */
    tied: fc.tuple(fc.nat(4), fc.nat(4)),
    set: fc.record({
      on: fc.boolean(),
      strength,
      gate: fc.option(anyGate.map((gate) => ({ ...gate, source: gate.source === "entering" ? ("mixed" as const) : gate.source }))),
      regionAt: fc.nat(4),
    }),
  });
  return drafts.map(({ spots, mix, regions, before, after, tied: [from, end], set }) => {
    const passes = [...before, ...after];
    const setIn = ({ regionAt, ...settings }: typeof set) => ({
      ...settings,
      region: regionAt < regions.length ? `region-${regionAt}` : null,
    });
    // A set lies on one side of the mix.
    const first = end > before.length ? Math.max(from, before.length) : from;
    return {
      version: PLAN_VERSION,
      spots: spots.map((spot, i) => ({ id: `spot-${i}`, ...spot })),
      frame: { ...WHOLE_FRAME },
      mix,
      regions: regions.map((region, i) => ({ id: `region-${i}`, ...region })),
      sets: first < Math.min(end, passes.length) ? [{ id: "set", name: "Set", ...setIn(set) }] : [],
      passes: passes.map(({ regionAt, ...pass }, i) => ({
        ...pass,
        id: `pass-${i}`,
        name: `Pass ${i}`,
        region: regionAt < regions.length ? `region-${regionAt}` : null,
        set: i >= first && i < end ? "set" : null,
      })),
    };
  });
}
