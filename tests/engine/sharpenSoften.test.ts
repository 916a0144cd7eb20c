import type { Pass } from "@/core/passes/pass";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { openGate } from "@/core/gate/gate";
import type { SoftenSettings } from "@/core/passes/soften/soften";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { renderPicture } from "@/engine/node/renderPicture";
import { sharpened, type SharpenSettings } from "@/core/passes/sharpen/sharpen";
import { sharpeningFor } from "@/core/passes/sharpen/forOutput";
import { detailOf } from "@/core/spatial/detail";
import { closeReach } from "@/engine/evaluate/runs";
import { Source } from "@/engine/source/source";
import { sharpenedRows } from "@/engine/output/sharpenRows";
import { Stage } from "@/engine/stage/stage";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// Sharpening and softening, on what they are measured by: made steps, noise, and each other way of rendering.

const folder = temporaryFolder();
const size = { width: 300, height: 200 };
const levels = colourful(size.width, size.height);
const layout = { file: join(folder, "levels"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, levels);

const SHARP: SharpenSettings = { radius: 1.2 / 300, amount: 2, threshold: 0.01, lighter: 0.06, darker: 0.1 };
const sharpen = (settings: Partial<SharpenSettings> = {}, changed: Partial<Pass> = {}): Pass => ({
  ...restingPass("sharpen", "sharpen", "Sharpen"),
  move: { kind: "sharpen", ...SHARP, ...settings },
  ...changed,
});
const soften = (settings: Partial<SoftenSettings> = {}, changed: Partial<Pass> = {}): Pass => ({
  ...restingPass("soften", "soften", "Soften"),
  move: { kind: "soften", radius: 0.01, spreads: "all", ...settings },
  ...changed,
});
const HARD: Pass = { ...restingPass("contrast", "hard", "Hard"), move: { kind: "contrast", around: 5, grade: 4, black: 0, white: 10 } };
const planOf = (...passes: Pass[]): Plan => ({
  ...defaultPlan(),
  regions: [
    {
      ...emptyRegion("oval", "Oval"),
      shapes: [{ id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.3, across: 0.3, down: 0.2, turnDeg: 0, inner: 0.05, outer: 0.05 }],
    },
  ],
  passes,
});

function tonesOf(plan: Plan, stage = Stage.fromLevels(levels, size, SRGB_SPACE)): Float32Array {
  stage.update(compilePlan(plan), undefined);
  return stage.tonesAfter(plan.passes.length).slice();
}
/** A picture of tones. */
function stageOf(width: number, height: number, tone: (x: number, y: number) => number): Stage {
  const made = Uint16Array.from({ length: 3 * width * height }, (_, i) => {
    const pixel = Math.floor(i / 3);
    return Math.round(65535 * srgbEncode(toneToLuminance(tone(pixel % width, Math.floor(pixel / width)))));
  });
  return Stage.fromLevels(made, { width, height }, SRGB_SPACE);
}
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);
const deviation = (tones: Float32Array) => {
  const mean = tones.reduce((sum, tone) => sum + tone, 0) / tones.length;
  return Math.sqrt(tones.reduce((sum, tone) => sum + (tone - mean) ** 2, 0) / tones.length);
};
/** Noise that is the same for the same place, −½ to ½. */
const noise = (x: number, y: number) => {
  const hashed = Math.sin(12.9898 * x + 78.233 * y) * 43758.5453;
  return hashed - Math.floor(hashed) - 0.5;
};

describe("sharpening", () => {
  const step = (x: number) => (x < 60 ? 0.35 : 0.6);

  test("beside a step goes no further than it may on either side, and leaves what lies away from it", () => {
    const plan = planOf(sharpen({ radius: 2 / 120, amount: 4 }));
    const row = tonesOf(plan, stageOf(120, 40, step)).subarray(20 * 120, 21 * 120);
    expect(0.35 - Math.min(...row)).toBeLessThanOrEqual(SHARP.darker + 1e-4);
    expect(0.35 - Math.min(...row)).toBeGreaterThan(0.05);
    expect(Math.max(...row) - 0.6).toBeLessThanOrEqual(SHARP.lighter + 1e-4);
    expect(Math.max(...row) - 0.6).toBeGreaterThan(0.03);
    expect(worst(row.subarray(0, 50), new Float32Array(50).fill(0.35))).toBeLessThan(1e-4);
    expect(worst(row.subarray(70), new Float32Array(50).fill(0.6))).toBeLessThan(1e-4);
  });

  test("a soft edge becomes steeper", () => {
    const soft = (x: number) => 0.35 + 0.25 / (1 + Math.exp(-(x - 60) / 2));
    const steepest = (tones: Float32Array) => Math.max(...[...Array(119).keys()].map((x) => tones[x + 1]! - tones[x]!));
    const [before, after] = [planOf(), planOf(sharpen({ radius: 2.5 / 120 }))].map((plan) => tonesOf(plan, stageOf(120, 20, soft)));
    expect(steepest(after!.subarray(0, 120)) / steepest(before!.subarray(0, 120))).toBeGreaterThan(1.3);
  });

  test("noise below the threshold is not lifted, and noise above it is", () => {
    const grainy = (most: number) => (x: number, y: number) => 0.5 + most * noise(x, y);
    // Differences from the mean around of at most half a threshold.
    const quiet = tonesOf(planOf(sharpen({ threshold: 0.02 })), stageOf(120, 120, grainy(0.02)));
    const found = tonesOf(planOf(), stageOf(120, 120, grainy(0.02)));
    expect(deviation(quiet) / deviation(found)).toBeLessThan(1.005);
    const lifted = tonesOf(planOf(sharpen({ threshold: 0 })), stageOf(120, 120, grainy(0.02)));
    expect(deviation(lifted) / deviation(found)).toBeGreaterThan(1.5);
  });

  test("an even picture and an even ramp stay", () => {
    const ramp = (x: number) => 0.2 + 0.005 * x;
    const [before, after] = [planOf(), planOf(sharpen({ threshold: 0 }))].map((plan) => tonesOf(plan, stageOf(120, 20, ramp)));
    const inner = (tones: Float32Array) => tones.subarray(0, 120).subarray(8, 112);
    expect(worst(inner(after!), inner(before!))).toBeLessThan(1e-4);
  });

  test("in a part with what lies beyond it is as in the whole; without it, not", () => {
    const plan = planOf(sharpen(), HARD, sharpen({ radius: 2 / 300, threshold: 0 }, { id: "again", region: "oval" }));
    const compiled = compilePlan(plan);
    const reach = closeReach(compiled, 300);
    expect(reach).toBe(5 + 7);
    const whole = Stage.fromLevels(levels, size, SRGB_SPACE);
    whole.update(compiled, undefined);
    const shown = { x: 90, y: 60, width: 100, height: 70 };
    const differs = (margin: number) => {
      const area = { x: shown.x - margin, y: shown.y - margin, width: shown.width + 2 * margin, height: shown.height + 2 * margin };
      const part = new Uint16Array(3 * area.width * area.height);
      for (let row = 0; row < area.height; row++) {
        const at = 3 * ((area.y + row) * size.width + area.x);
        part.set(levels.subarray(at, at + 3 * area.width), 3 * row * area.width);
      }
      const stage = new Stage(Source.fromLevels(part, area, SRGB_SPACE, { place: { x: area.x, y: area.y, whole: size } }));
      stage.update(compiled, undefined, { bases: whole.bases() });
      let most = 0;
      for (let row = 0; row < shown.height; row++) {
        const own = (row + margin) * area.width + margin;
        const at = (shown.y + row) * size.width + shown.x;
        const tones = stage.tonesAfter(3).subarray(own, own + shown.width);
        most = Math.max(most, worst(tones, whole.tonesAfter(3).subarray(at, at + shown.width)));
      }
      return most;
    };
    expect(differs(reach)).toBe(0);
    expect(differs(0)).toBeGreaterThan(1e-3);
  });

  test("a move of it under the hand gives what it gives at once", () => {
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    for (const amount of [0.5, 1, 2]) tonesOf(planOf(sharpen({ amount }), HARD), stage);
    const wider = planOf(sharpen({ radius: 0.006 }), HARD);
    expect(tonesOf(wider, stage)).toEqual(tonesOf(wider));
    const mixed = { ...wider, mix: { ...wider.mix, weights: { red: 1, green: 0, blue: 0 } } };
    expect(tonesOf(mixed, stage)).toEqual(tonesOf(mixed));
    const changed = planOf({ ...HARD, id: "first" }, sharpen({ amount: 2 }), HARD);
    expect(tonesOf(changed, stage)).toEqual(tonesOf(changed));
    expect(tonesOf(planOf(sharpen({ radius: 0.005 })), stage)).toEqual(tonesOf(planOf(sharpen({ radius: 0.005 }))));
  });
});

describe("softening", () => {
  test("an even picture stays; a step melts evenly to both sides, its mean kept", () => {
    expect(
      worst(
        tonesOf(
          planOf(soften()),
          stageOf(200, 60, () => 0.4),
        ),
        new Float32Array(12000).fill(0.4),
      ),
    ).toBeLessThan(2e-4);
    const row = tonesOf(
      planOf(soften({ radius: 0.02 })),
      stageOf(200, 60, (x) => (x < 100 ? 0.3 : 0.6)),
    ).subarray(30 * 200, 31 * 200);
    expect(row[99]! + row[100]!).toBeCloseTo(0.9, 2);
    expect(row[96]!).toBeGreaterThan(0.31);
    for (let x = 1; x < 200; x++) expect(row[x]! - row[x - 1]!).toBeGreaterThan(-1e-4);
    // Three standard deviations away nothing is left of it.
    expect(row[80]!).toBeCloseTo(0.3, 3);
    expect(row[120]!).toBeCloseTo(0.6, 3);
  });

  test("where lights spread, nothing becomes darker, and what is beside them glows", () => {
    const lamp = (x: number, y: number) => (Math.hypot(x - 100, y - 50) < 8 ? 0.95 : 0.2);
    const [before, after] = [planOf(), planOf(soften({ radius: 0.03, spreads: "lights" }))].map((plan) =>
      tonesOf(plan, stageOf(200, 100, lamp)),
    );
    expect(Math.max(...before!.map((tone, i) => tone - after![i]!))).toBeLessThan(1e-3);
    expect(after![50 * 200 + 112]! - before![50 * 200 + 112]!).toBeGreaterThan(0.05);
    expect(after![50 * 200 + 100]!).toBeCloseTo(0.95, 2);
  });

  test("at half its strength goes half the way", () => {
    const picture = () => stageOf(200, 60, (x) => (x < 100 ? 0.4 : 0.5));
    const [none, half, all] = [planOf(), planOf(soften({}, { strength: 0.5 })), planOf(soften())].map((plan) => tonesOf(plan, picture()));
    const at = 30 * 200 + 98;
    expect((half![at]! - none![at]!) / (all![at]! - none![at]!)).toBeCloseTo(0.5, 1);
  });
});

test.each([
  ["sharpening", planOf(sharpen(), HARD)],
  [
    "sharpening twice, through a region and a gate",
    planOf(
      sharpen(),
      sharpen({ radius: 0.005 }, { id: "again", region: "oval", strength: 1.4, gate: { ...openGate(), from: 2, blur: 0.02 } }),
    ),
  ],
  ["softening", planOf(soften({ radius: 0.01, spreads: "lights" }), HARD)],
  ["both, blended", planOf(soften({}, { blend: "soft-light", strength: 0.6 }), sharpen({}, { blend: "darken" }))],
])("is exported as it is shown, whatever the bands: %s", async (_, plan) => {
  const exported = async (bandPixels?: number) =>
    (await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, ...(bandPixels ? { bandPixels } : {}) })).levels;
  const found = await exported();
  const shown = tonesOf(plan);
  expect(worst(shown, tonesOf(planOf()))).toBeGreaterThan(0.02);
  expect(
    worst(
      Float32Array.from(found, (level) => luminanceToTone(toLinear(SRGB_CURVE, level / 65535))),
      shown,
    ),
  ).toBeLessThan(1e-4);
  expect(await exported(700)).toEqual(found);
});

/** Noise of a seed, about a standard deviation of 1. */
function gaussian(seed: number): () => number {
  let state = seed;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}

describe("a last sharpening for the size of a file", () => {
  const strong = sharpeningFor("strong")!;
  const tonesIn = (found: ArrayLike<number>) => Float32Array.from(found, (level) => luminanceToTone(toLinear(SRGB_CURVE, level / 65535)));
  const frame = { turns: 0, degrees: 3, mirrored: false, crop: { x: 0.5, y: 0.33, width: 0.6, height: 0.4 } } as const;
  const rendered = (plan: Plan, options: Partial<Parameters<typeof renderPicture>[2]> = {}) =>
    renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, ...options });

  test.each([
    ["at full size", planOf(HARD), {}],
    ["reduced", planOf(HARD), { longEdge: 170 }],
    ["cut out and turned", { ...planOf(HARD), frame }, {}],
  ])("is an unsharp mask of the print as it is written: %s", async (_, plan, options) => {
    const plain = await rendered(plan, options);
    const sharp = await rendered(plan, { ...options, sharpen: strong });
    expect(sharp.size).toEqual(plain.size);
    const tones = tonesIn(plain.levels);
    const differences = detailOf(tones, plain.size, strong.pixels);
    const { width, height } = plain.size;
    const around = tones.map((tone, i) => tone - (2 * differences[i]! - 1));
    const wanted = tones.map((tone, i) => {
      const [x, y] = [i % width, Math.floor(i / width)];
      const rise = (a: number, b: number) => (around[b]! - around[a]!) / 2;
      const along = rise(y * width + Math.max(x - 1, 0), y * width + Math.min(x + 1, width - 1));
      const across = rise(Math.max(y - 1, 0) * width + x, Math.min(y + 1, height - 1) * width + x);
      const u = Math.min(Math.max((Math.hypot(along, across) - 0.003) / 0.007, 0), 1);
      return Math.min(Math.max(tone + u * u * (3 - 2 * u) * sharpened(2 * differences[i]! - 1, strong), 0), 1);
    });
    expect(worst(wanted, tones)).toBeGreaterThan(0.02);
    expect(worst(tonesIn(sharp.levels), wanted)).toBeLessThan(5e-4);
    expect((await rendered(plan, { ...options, sharpen: strong, bandPixels: 700 })).levels).toEqual(sharp.levels);
  });

  test.each([
    ["gentle", 1.05, 1.03],
    ["strong", 1.15, 1.12],
  ] as const)("%s: grain of a hundredth stays within %d times what it was, and an edge is raised", (output, most, least) => {
    const settings = sharpeningFor(output)!;
    const gauss = gaussian(7);
    const at = { width: 400, height: 200 };
    const sharpenedOf = (tone: Float32Array) =>
      sharpenedRows((from, to) => ({ tone: tone.slice(from * at.width, to * at.width), chroma: undefined }), at, settings)(0, at.height)
        .tone;
    const deviationOf = (tone: Float32Array) => Math.sqrt(tone.reduce((sum, t) => sum + (t - 0.5) ** 2, 0) / tone.length);
    const grain = Float32Array.from({ length: at.width * at.height }, () => 0.5 + 0.01 * gauss());
    expect(deviationOf(sharpenedOf(grain)) / deviationOf(grain)).toBeLessThan(most);
    // An edge of a zone and a half, softened by a pixel, in the same grain: how far the tones beside it are apart.
    const edge = grain.map((t, i) => t + 0.15 * (1 / (1 + Math.exp(-((i % at.width) - 199.5) / 0.7)) - 0.5));
    const apart = (tone: Float32Array) => {
      let sum = 0;
      for (let y = 0; y < at.height; y++) sum += tone[y * at.width + 201]! - tone[y * at.width + 198]!;
      return sum / at.height;
    };
    expect(apart(sharpenedOf(edge)) / apart(edge)).toBeGreaterThan(least);
  });

  test("leaves a mask as it is, and is none where none is wished", async () => {
    const plan = planOf({ ...HARD, gate: { ...openGate(), source: "red", from: 4 } });
    const mask = await rendered(plan, { maskOf: HARD.id });
    expect((await rendered(plan, { maskOf: HARD.id, sharpen: strong })).levels).toEqual(mask.levels);
    expect(sharpeningFor("none")).toBeUndefined();
  });
});
