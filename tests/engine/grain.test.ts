import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { zoneGate, type Gate } from "@/core/gate/gate";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { areaReduceRows } from "@/core/spatial/areaReduce";
import { preparePicture } from "@/engine/node/preparePicture";
import { RawLevels } from "@/engine/node/rawLevels";
import { rowRenderer } from "@/engine/output/renderRows";
import { Stage } from "@/engine/stage/stage";
import { rgb16 } from "../madePictures";
import { temporaryFolder } from "../temporary";

// What is shown at a quarter of the size against what is printed, brought to a quarter: CORE, "What must hold", 3. Pixel by pixel,
// the frame's included, on pictures whose pixels at a quarter hold more than one tone.

const folder = temporaryFolder();
const [W, H] = [512, 384];
const size = { width: W, height: H };
const quarter = { width: W / 4, height: H / 4 };

type Rgb = [number, number, number];
const noise = seeded(5);
const normal = () => Math.sqrt(-2 * Math.log(noise() + 1e-12)) * Math.cos(2 * Math.PI * noise());

/** Light of each place, from tones and a colour. */
const PICTURES: [string, (u: number, v: number) => Rgb][] = [
  ["a smooth ramp", (u, v) => grey(0.06 + 0.5 * u + 0.4 * v)],
  ["fine grain", (u, v) => grey(0.06 + 0.5 * u + 0.4 * v + 0.02 * normal())],
  ["coarse grain", (u, v) => grey(0.06 + 0.5 * u + 0.4 * v + 0.06 * normal())],
  ["branches before a sky", (u, v) => ((37 * u + 11 * v) % 1 > 0.55 ? [0.05, 0.05, 0.04] : [0.3, 0.42, 0.6])],
  ["leaves", (u) => (noise() < 0.3 ? [0.5, 0.55, 0.1] : [0.06 + 0.1 * u, 0.12, 0.03])],
  ["stars", () => grey(noise() < 0.02 ? 0.95 : 0.05)],
];

function grey(tone: number): Rgb {
  const light = toneToLuminance(Math.min(Math.max(tone, 0), 1));
  return [light, light, light];
}

function seeded(state: number): () => number {
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

function pictureOf(lightAt: (u: number, v: number) => Rgb, { width, height } = size): Uint16Array {
  const levels = new Uint16Array(3 * width * height);
  for (let i = 0; i < width * height; i++) {
    const light = lightAt((i % width) / width, Math.floor(i / width) / height);
    light.forEach((y, c) => (levels[3 * i + c] = Math.round(65535 * srgbEncode(Math.min(Math.max(y, 0), 1)))));
  }
  return levels;
}

const shouldered = (zones: number): Gate => ({ ...zoneGate(5), low: zones, high: zones });
const pass = (move: Move, rest: Partial<Pass> = {}): Pass => ({ ...restingPass(move.kind, "one", "One"), move, ...rest });
const stops = (flat: number) => ({ ...(restingPass("exposure", "e", "E").move as Move & { kind: "exposure" }), flat });

const FAITHFUL = { within: 0.999, mean: 0.002 };
/** How near a kind of pass is held on the coarsest grain, whose tones reach over two zones inside a pixel; all else is faithful. */
const PASSES: { name: string; one: Pass; onCoarse?: typeof FAITHFUL }[] = [
  {
    name: "high key",
    one: pass({
      kind: "placement",
      strands: [
        { from: 0, to: 0 },
        { from: 3, to: 6 },
        { from: 10, to: 10 },
      ],
    }),
  },
  { name: "grade 4", one: pass({ kind: "contrast", around: 5, grade: 4, black: 0, white: 10 }) },
  { name: "burned two stops", one: pass(stops(-2)), onCoarse: { within: 0.97, mean: 0.002 } },
  { name: "lifted through a gate", one: pass(stops(1), { gate: shouldered(1.5) }), onCoarse: { within: 0.9, mean: 0.004 } },
  {
    name: "lifted through a gate on the mix",
    one: pass(stops(1), { gate: { ...shouldered(1.5), source: "mixed" } }),
    onCoarse: { within: 0.92, mean: 0.004 },
  },
  {
    name: "lifted through a gate on blue",
    one: pass(stops(1), { gate: { ...shouldered(2), source: "blue" } }),
    onCoarse: { within: 0.99, mean: 0.002 },
  },
  { name: "contrast mask", one: pass({ kind: "contrast-mask", radius: 0.04, density: 0.5, edges: true }) },
  { name: "edge burn", one: pass({ ...(restingPass("edge-burn", "e", "E").move as Move & { kind: "edge-burn" }), stops: -1.5 }) },
  { name: "soft light", one: pass({ kind: "contrast", around: 5, grade: 3, black: 0, white: 10 }, { blend: "soft-light" }) },
];

const RED_FILTER = { red: 0.9, green: 0.4, blue: -0.3 };

describe.each(PICTURES)("%s", (picture, lightAt) => {
  const levels = pictureOf(lightAt);
  const small = Stage.fromLevels(levels, size, SRGB_SPACE).reducedTo(quarter);
  const plan = (passes: Pass[]): Plan => ({ ...defaultPlan(), mix: { ...defaultPlan().mix, weights: RED_FILTER }, passes });

  test.each(PASSES)("$name: shown at a quarter as it is printed", ({ one, onCoarse }) => {
    const bound = (picture === "coarse grain" && onCoarse) || FAITHFUL;
    const { mean, within } = differences(levels, small, plan([one]));
    expect(mean).toBeLessThanOrEqual(bound.mean);
    expect(within).toBeGreaterThanOrEqual(bound.within);
  });

  test("a pass that changes nothing shows the mean of the light", () => {
    const { most } = differences(levels, small, plan([]));
    expect(most).toBeLessThan(2e-4);
  });
});

/** Fine detail is some pixels of a preview wide: where a preview has its real size. */
const strip = { width: 5120, height: 128 };
const stripAtQuarter = { width: 1280, height: 32 };
const RELIEFS = [
  { name: "fine", fine: 1, medium: 0, broad: 0 },
  { name: "medium", fine: 0, medium: 1, broad: 0 },
  { name: "broad", fine: 0, medium: 0, broad: 1 },
  { name: "mist", fine: -0.5, medium: -0.5, broad: -0.5 },
] as const;

test.each(PICTURES)("relief of a strip of %s: shown at a quarter as it is printed", (picture, lightAt) => {
  const levels = pictureOf((u, v) => lightAt((10 * u) % 1, v / 3), strip);
  const small = Stage.fromLevels(levels, strip, SRGB_SPACE).reducedTo(stripAtQuarter);
  for (const { name, ...sizes } of RELIEFS) {
    const passes = [pass({ kind: "relief", ...sizes })];
    const { mean, within } = differences(levels, small, { ...defaultPlan(), passes }, strip);
    expect([name, mean <= FAITHFUL.mean]).toEqual([name, true]);
    expect(within).toBeGreaterThanOrEqual(picture === "coarse grain" ? 0.996 : FAITHFUL.within);
  }
});

test("a gate narrower than the grain shows what is printed to within two zones' hundredths", () => {
  // No two tones can stand for sixteen where the gate lets through a few of them.
  for (const name of ["fine grain", "coarse grain"]) {
    const levels = pictureOf(PICTURES.find(([picture]) => picture === name)![1]);
    const small = Stage.fromLevels(levels, size, SRGB_SPACE).reducedTo(quarter);
    const { mean, within } = differences(levels, small, { ...defaultPlan(), passes: [pass(stops(1), { gate: shouldered(0.2) })] });
    expect(mean).toBeLessThan(0.002);
    expect(within).toBeGreaterThan(0.97);
  }
});

test("a prepared picture holds its grain: preview and half as it is printed, reduced once or twice", async () => {
  const wide = { width: 5120, height: 96 };
  const [, lightAt] = PICTURES.find(([name]) => name === "branches before a sky")!;
  const levels = pictureOf((u, v) => lightAt(16 * u, v), wide);
  const file = join(folder, "wide.png");
  writeFileSync(file, await rgb16(levels, wide.width, wide.height).png().toBuffer());
  const { files } = await preparePicture(file, join(folder, "not/there/yet/wide"));
  expect(files.map(({ grain }) => grain !== undefined)).toEqual([false, true, true]);
  const plan = { ...defaultPlan(), passes: [PASSES[0]!.one, { ...PASSES[2]!.one, id: "two" }] };
  for (const layout of files.slice(1)) {
    const raw = new RawLevels(layout);
    const grain = raw.readGrain(0, 0, layout.width, layout.height);
    const read = raw.read(0, 0, layout.width, layout.height);
    raw.close();
    const withGrain = Stage.fromLevels(read, layout, layout.space, { grain });
    const { mean, within } = differences(levels, withGrain, plan, wide);
    expect(mean).toBeLessThanOrEqual(FAITHFUL.mean);
    expect(within).toBeGreaterThanOrEqual(FAITHFUL.within);
    // Without it the mean of each pixel would be placed and burned, and be wrong.
    expect(differences(levels, Stage.fromLevels(read, layout, layout.space), plan, wide).within).toBeLessThan(0.7);
  }
});

/** How far what a stage shows lies from what is printed, brought to its size. */
function differences(levels: Uint16Array, stage: Stage, plan: Plan, of = size): { mean: number; within: number; most: number } {
  const compiled = compilePlan(plan);
  stage.update(compiled, undefined);
  const printed = new Uint16Array(of.width * of.height);
  const readRows = (y: number, rows: number) => levels.subarray(3 * y * of.width, 3 * (y + rows) * of.width);
  rowRenderer({ size: of, depth: 16, space: SRGB_SPACE, readRows }, compiled, { size: of, depth: 16 }, { bases: stage.bases() }).render(
    0,
    of.height,
    printed,
  );
  const light = Float32Array.from(printed, (level) => toLinear(SRGB_CURVE, level / 65535));
  const reduced = areaReduceRows(light, 0, of, stage.size, 0, stage.size.height);
  const shown = stage.tonesAfter(plan.passes.length);
  const away = Array.from(reduced, (y, i) => Math.abs(luminanceToTone(y) - shown[i]!));
  return {
    mean: away.reduce((sum, d) => sum + d, 0) / away.length,
    within: away.filter((d) => d <= 0.01).length / away.length,
    most: Math.max(...away),
  };
}
