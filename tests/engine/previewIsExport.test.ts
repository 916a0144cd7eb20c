import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { luminanceToTone } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, toLinear } from "@/core/colour/transferCurve";
import { printOn, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import type { MoveKind } from "@/core/passes/moves";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { reduceLevel } from "@/engine/node/reduceLevel";
import { renderPicture } from "@/engine/node/renderPicture";
import { stageOf } from "@/engine/node/stageOf";
import { PrintCutter } from "@/engine/machine/printCutter";
import { MOVES } from "../anyMove";
import { photograph } from "../madePictures";
import { temporaryFolder } from "../temporary";

// What the page shows of a picture at half its size, against an export reduced to that size: every kind of pass.

const folder = temporaryFolder();
const size = { width: 900, height: 600 };
const half = { width: 450, height: 300 };
const full = { file: join(folder, "full"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(full.file, photograph(size.width, size.height));
const preview = reduceLevel(full, half, join(folder, "preview"));

async function compared(plan: Plan) {
  const stage = stageOf(preview);
  stage.update(compilePlan(plan), undefined);
  const print = plan.frame === WHOLE_FRAME ? undefined : printOn(plan.frame, size, half)!;
  const plane = stage.tonesAfter(plan.passes.length);
  const shown = print ? new PrintCutter().cut(plane, half, print) : plane;
  const longEdge = print ? Math.max(print.width, print.height) : half.width;
  const { levels } = await renderPicture(full, plan, { depth: 16, longEdge, overview: preview });
  expect(levels.length).toBe(shown.length);
  let [sum, near] = [0, 0];
  for (let i = 0; i < levels.length; i++) {
    const off = Math.abs(luminanceToTone(toLinear(SRGB_CURVE, levels[i]! / 65535)) - shown[i]!);
    sum += off;
    near += Number(off <= 0.01);
  }
  return { mean: sum / levels.length, near: (100 * near) / levels.length };
}

const withPass = (kind: MoveKind): Plan => ({ ...defaultPlan(), passes: [{ ...restingPass(kind, "p", "P"), move: MOVES[kind] }] });
const hard: Plan = {
  ...defaultPlan(),
  mix: {
    ...defaultPlan().mix,
    weights: { red: 1.6, green: -0.8, blue: 0.2 },
    hueKnots: [
      { hueDeg: 250, stops: -2 },
      { hueDeg: 40, stops: 1 },
    ],
  },
};
const turned: Frame = { turns: 0, degrees: 4, mirrored: false, crop: { x: 0.5, y: 0.33, width: 0.5, height: 0.3 } };

const CASES: [string, Plan][] = [
  ...(Object.keys(MOVES) as MoveKind[]).map((kind): [string, Plan] => [kind, withPass(kind)]),
  ["a hard mix with hues", hard],
  ["a frame turned", { ...withPass("contrast"), frame: turned }],
  ["soften, then sharpen", { ...defaultPlan(), passes: [...withPass("soften").passes, { ...withPass("sharpen").passes[0]!, id: "q" }] }],
];

/**
 * All but one pixel in a thousand are within a hundredth, in the mean within 0.002; but for what is decided inside a pixel of the preview,
 * where two tones stand for all there are: a mix that bends, the lighter of two
 * tones, and sharpening of what is finer than a pixel, which is seen at one to one. docs/decisions/0016-grain.md.
 */
const EXCEPT: Partial<Record<string, { near: number; mean?: number }>> = {
  "another-mix": { near: 99.8 },
  "a hard mix with hues": { near: 99.6 },
  soften: { near: 99.7 },
  sharpen: { near: 97, mean: 0.0025 },
  "soften, then sharpen": { near: 98 },
};

test.each(CASES)("%s", async (name, plan) => {
  const { mean, near } = await compared(plan);
  const { near: least = 99.9, mean: most = 0.002 } = EXCEPT[name] ?? {};
  expect(near).toBeGreaterThan(least);
  expect(mean).toBeLessThan(most);
});
