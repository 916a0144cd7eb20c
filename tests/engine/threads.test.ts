import fc from "fast-check";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { beforeAll, describe, expect, test } from "vitest";
import type { Plan } from "@/core/plan/plan";
import { decodePicture } from "@/engine/node/decodePicture";
import type { RawLayout } from "@/engine/node/rawLevels";
import { renderPicture } from "@/engine/node/renderPicture";
import { anyFrame, anyPlan } from "../anyPlan";
import { anyStroke } from "../anyRegion";
import { brushed, burnOnTheRight, region } from "../brushedPlan";
import { colourful, rgb16 } from "../madePictures";
import { temporaryFolder } from "../temporary";

// What threads render is what one renders alone, whatever this process rendered before.

const folder = temporaryFolder();
const threadFile = pathToFileURL(join("dist", "renderThread.mjs"));
const [W, H] = [120, 81];
let picture: RawLayout;

beforeAll(async () => {
  expect(existsSync(threadFile)).toBe(true); // npm run build:node makes it
  const path = join(folder, "made.png");
  await rgb16(colourful(W, H), W, H).png().toFile(path);
  picture = await decodePicture(path, join(folder, "made"));
});

const alone = async (plan: Plan) => renderPicture(picture, plan, { depth: 16, space: "srgb" });
const inThreads = async (plan: Plan, threads: number) =>
  renderPicture(picture, plan, { depth: 16, space: "srgb", threads, threadFile, bandPixels: 2500 });

describe("brushed regions that the whole picture is gathered for", () => {
  test.each([
    ["softened", { soften: 0.02 }],
    ["fitted", { fit: 0.02 }],
    ["both", { soften: 0.01, fit: 0.03 }],
  ] as const)("%s act where they were brushed, in threads as alone, again and again", async (_, looks) => {
    const plan = burnOnTheRight(looks);
    const [plain, here] = [await alone({ ...plan, passes: [] }), await alone(plan)];
    const meanOf = (levels: ArrayLike<number>, from: number, to: number) => {
      let sum = 0;
      for (let y = 20; y < 45; y++) for (let x = from; x < to; x++) sum += levels[y * W + x]!;
      return sum / (25 * (to - from));
    };
    expect(meanOf(here.levels, 20, 28)).toBeGreaterThan(1.1 * meanOf(plain.levels, 20, 28));
    expect(meanOf(here.levels, 92, 100)).toBeLessThan(0.8 * meanOf(plain.levels, 92, 100));
    for (const threads of [1, 2, 1]) expect((await inThreads(structuredClone(plan), threads)).levels).toEqual(here.levels);
    expect((await alone(structuredClone(plan))).levels).toEqual(here.levels);
  });
});

test("any two plans, on one thread or two, twice in one process and in both orders, to the bit", async () => {
  const looks = fc.record({ soften: fc.constantFrom(0, 0.01, 0.1), fit: fc.constantFrom(0, 0.01, 0.05) });
  const strokes = fc.array(anyStroke, { minLength: 1, maxLength: 4 });
  const planThroughBrushes = fc
    .record({ plan: anyPlan(), frame: anyFrame, brushes: fc.array(fc.tuple(strokes, looks), { minLength: 2, maxLength: 2 }) })
    .map(({ plan, frame, brushes }): Plan => {
      const drawn = brushes.map(([own, look], i) => region(`brushed-${i}`, brushed(`b${i}`, own), look));
      const passes = plan.passes.map((pass, i) => ({ ...pass, on: true, region: i % 3 < 2 ? `brushed-${i % 3}` : pass.region }));
      const sets = plan.sets.map((set) => ({ ...set, on: true, region: "brushed-1" }));
      return { ...plan, frame, passes, sets, regions: [...plan.regions, ...drawn] };
    });
  await fc.assert(
    fc.asyncProperty(planThroughBrushes, planThroughBrushes, fc.constantFrom(1, 2), async (first, second, threads) => {
      const rendered = [
        await inThreads(first, threads),
        await inThreads(second, threads),
        await inThreads(structuredClone(first), threads),
      ];
      const expected = [await alone(structuredClone(first)), await alone(second)];
      expect(rendered[0]!.levels).toEqual(expected[0]!.levels);
      expect(rendered[1]!.levels).toEqual(expected[1]!.levels);
      expect(rendered[2]!.levels).toEqual(expected[0]!.levels);
    }),
    { seed: 29, numRuns: 4, endOnFailure: true },
  );
});
