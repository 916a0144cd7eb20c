import type { Pass } from "@/core/passes/pass";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { luminanceToTone } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, toLinear } from "@/core/colour/transferCurve";
import { openGate } from "@/core/gate/gate";
import type { MixLook } from "@/core/mix/mixLook";
import { LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import { compilePlan, maskOf } from "@/core/plan/compilePlan";
import { defaultPlan, restingMix, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Mix, Plan } from "@/core/plan/plan";
import { renderPicture } from "@/engine/node/renderPicture";
import { Stage } from "@/engine/stage/stage";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// Several mixes of one picture, and how strong a mix is.

const folder = temporaryFolder();
const size = { width: 300, height: 200 };
const levels = colourful(size.width, size.height);
const layout = { file: join(folder, "levels"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, levels);

const ONE: MixLook = { ...restingMix(), weights: { red: 0.9, green: 0.4, blue: -0.3 }, hueKnots: [{ hueDeg: 40, stops: 0.7 }] };
const OTHER: MixLook = { ...restingMix(), weights: { red: -0.2, green: 0.3, blue: 0.9 }, hueKnots: [{ hueDeg: 140, stops: -0.9 }] };
const planOf = (mix: Partial<Mix>, ...passes: Pass[]): Plan => ({
  ...defaultPlan(),
  mix: { ...defaultPlan().mix, ...mix },
  regions: [
    {
      ...emptyRegion("oval", "Oval"),
      shapes: [{ id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.3, across: 0.3, down: 0.2, turnDeg: 0, inner: 0.05, outer: 0.05 }],
    },
  ],
  passes,
});
const again = (mix: MixLook, changed: Partial<Pass> = {}): Pass => ({
  ...restingPass("another-mix", "again", "Again"),
  move: { kind: "another-mix", ...mix },
  ...changed,
});
const HARD: Pass = { ...restingPass("contrast", "hard", "Hard"), move: { kind: "contrast", around: 5, grade: 4, black: 0, white: 10 } };

function tonesOf(plan: Plan, stage = Stage.fromLevels(levels, size, SRGB_SPACE)): Float32Array {
  stage.update(compilePlan(plan), undefined);
  return stage.tonesAfter(plan.passes.length).slice();
}
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe("another mix", () => {
  const [first, second] = [tonesOf(planOf(ONE)), tonesOf(planOf(OTHER))];

  test("over the whole picture is as if there were no other", () => {
    expect(worst(first, second)).toBeGreaterThan(0.3);
    expect(worst(tonesOf(planOf(ONE, again(OTHER))), second)).toBeLessThan(1e-6);
    expect(worst(tonesOf(planOf(ONE, HARD, again(OTHER))), second)).toBeLessThan(1e-6);
    expect(worst(tonesOf(planOf({}, again(OTHER))), second)).toBeLessThan(1e-6);
    expect(worst(tonesOf(planOf(ONE, again(OTHER), HARD)), tonesOf(planOf(OTHER, HARD)))).toBeLessThan(1e-5);
  });

  test("within a region, at a strength, goes as far from the one to the other as these say", () => {
    const plan = planOf(ONE, again(OTHER, { region: "oval", strength: 0.6 }));
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const tones = tonesOf(plan, stage);
    const mask = stage.mask(maskOf(plan, plan.passes[0]!)!);
    expect(Math.max(...mask) - Math.min(...mask)).toBe(1);
    const wanted = first.map((tone, i) => tone + 0.6 * mask[i]! * (second[i]! - tone));
    expect(worst(tones, wanted)).toBeLessThan(1e-5);
  });

  test("blended darker takes the darker of both; through a gate on tones none it does not let through", () => {
    const darker = tonesOf(planOf(ONE, again(OTHER, { blend: "darken" })));
    expect(
      worst(
        darker,
        first.map((tone, i) => Math.min(tone, second[i]!)),
      ),
    ).toBeLessThan(1e-5);
    const gated = tonesOf(planOf(ONE, again(OTHER, { gate: { ...openGate(), from: 6, low: 0.5 } })));
    first.forEach((tone, i) => tone < 0.54 && expect(gated[i]).toBe(tone));
    expect(worst(gated, first)).toBeGreaterThan(0.1);
  });

  test.each([
    ["alone", planOf(ONE, again(OTHER, { strength: 0.7 }))],
    [
      "through masks that look at the picture, after a pass before the mix",
      planOf(
        ONE,
        { ...restingPass("balance", "warm", "Warm"), move: { kind: "balance", mired: 40, tint: -12 } },
        again(OTHER, {
          region: "oval",
          gate: { ...openGate(), source: "red", from: 3, hue: { centreDeg: 100, widthDeg: 90, shoulderDeg: 50, invert: false } },
        }),
        HARD,
        again(ONE, { strength: 0.4, blend: "soft-light" }),
      ),
    ],
  ])("is exported as it is shown, whatever the bands: %s", async (_, plan) => {
    const exported = async (bandPixels?: number) =>
      (await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, ...(bandPixels ? { bandPixels } : {}) })).levels;
    const found = await exported();
    expect(
      worst(
        Float32Array.from(found, (level) => luminanceToTone(toLinear(SRGB_CURVE, level / 65535))),
        tonesOf(plan),
      ),
    ).toBeLessThan(1e-4);
    expect(await exported(700)).toEqual(found);
  });

  test("reads cleaned colour where the plan's own mix would not", () => {
    expect(compilePlan(planOf({ clean: 1 })).clean).toBe(0);
    expect(compilePlan(planOf({ clean: 1 }, again(OTHER))).clean).toBe(1);
  });
});

describe("the strength of a mix", () => {
  test("0 is what the eye sees, and so is a mix with weights off and hues off", () => {
    const plain = tonesOf(planOf({ weights: { ...LUMINANCE_WEIGHTS } }));
    expect(tonesOf(planOf({ ...ONE, strength: 0 }))).toEqual(plain);
    expect(tonesOf(planOf({ ...ONE, weightsOn: false, huesOn: false }))).toEqual(plain);
    expect(compilePlan(planOf({ ...ONE, clean: 1, strength: 0 })).clean).toBe(0);
  });

  test("2 is twice as far in weights and stops, and neutrals stay", () => {
    const double = tonesOf(planOf({ ...ONE, strength: 2 }));
    const far = (channel: "red" | "green" | "blue") => 2 * ONE.weights[channel] - LUMINANCE_WEIGHTS[channel];
    const weights = { red: far("red"), green: far("green"), blue: far("blue") };
    expect(worst(double, tonesOf(planOf({ ...ONE, weights, hueKnots: [{ hueDeg: 40, stops: 1.4 }] })))).toBeLessThan(1e-6);
    const plain = tonesOf(planOf({}));
    // The upper rows are a neutral ramp, but for the noise of 16 bits.
    const neutral = (0.1 * size.height * size.width) | 0;
    expect(worst(double.subarray(0, neutral), plain.subarray(0, neutral))).toBeLessThan(0.08);
    expect(worst(double, plain)).toBeGreaterThan(0.3);
  });
});
