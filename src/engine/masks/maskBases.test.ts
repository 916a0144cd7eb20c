import { expect, test } from "vitest";
import type { CompiledMask } from "@/core/plan/compilePlan";
import { wholeGrid } from "@/core/spatial/grid";
import type { LikenessShape, Region } from "@/core/region/region";
import { layBase } from "@/core/spatial/layBase";
import { gatherMaskBases, type Analysis } from "./maskBases";
import { likenessKey, regionBaseKey } from "./maskKeys";

const size = { width: 240, height: 160 };
/** Brick on the left, sky on the right; both with a grain, so that a fit to the picture follows its tones. */
function picture(): Analysis {
  const plane = (left: number, right: number) =>
    Float32Array.from({ length: size.width * size.height }, (_, i) => {
      const x = i % size.width;
      return (x < 120 ? left : right) * (1 + 0.25 * Math.sin(x * 0.9) * Math.sin(i * 0.003));
    });
  const [red, green, blue] = [plane(0.4, 0.2), plane(0.2, 0.3), plane(0.1, 0.6)];
  const mixed = red.map((r, i) => 0.3 * r + 0.6 * green[i]! + 0.1 * blue[i]!);
  return { ...size, red, green, blue, mixed: () => mixed, hues: () => ({ hue: mixed, fade: mixed }) };
}

const like: LikenessShape = {
  id: "like",
  combine: "add",
  kind: "likeness",
  touched: [{ x: 0.2, y: 0.3 }],
  not: [],
  tolerance: 0.15,
  connected: true,
  edges: "tone",
  apart: "place",
};
const region: Region = { id: "brick", name: "Brick", shapes: [like], soften: 0, fit: 0, invert: false, density: 1 };
const maskOf = (region: Region) => ({ key: JSON.stringify(region), region, gate: undefined }) as unknown as CompiledMask;

test.each([
  ["softened a little", { soften: 0.002 }],
  ["fitted closely", { fit: 0.004 }],
])("a likeness in a region %s is nearly what it is by itself, tones and all", (_, change) => {
  const analysis = picture();
  const changed = { ...region, ...change };
  const bases = gatherMaskBases([maskOf(changed)], analysis, new Map());
  const lay = (key: string) => layBase(bases.get(key)!, wholeGrid(size), analysis.mixed());
  const [alone, together] = [lay(likenessKey(like)), lay(regionBaseKey(changed)!)];
  // Not all where it is full and nothing where it is not: the fit's slope carries most of the step between the two.
  const far = alone.reduce((sum, a, i) => sum + Math.abs(a - together[i]!), 0) / alone.length;
  expect(far).toBeLessThan(0.025);
  expect(alone[30 * size.width + 40]).toBeGreaterThan(0.9);
  expect(together[30 * size.width + 40]).toBeGreaterThan(0.9);
});

test("a region softened near the frame is softened towards the picture, and full to the frame", () => {
  const analysis = picture();
  // Its edge lies farther from the frame than its feather, but not than its feather and the blur.
  const oval = {
    id: "o",
    combine: "add",
    kind: "oval",
    x: 0.5,
    y: 1 / 3,
    across: 0.3,
    down: 0.29,
    turnDeg: 0,
    inner: 0.01,
    outer: 0.01,
  } as const;
  const softened: Region = { ...region, shapes: [oval], soften: 0.03 };
  const bases = gatherMaskBases([maskOf(softened)], analysis, new Map());
  const plane = layBase(bases.get(regionBaseKey(softened)!)!, wholeGrid(size), undefined);
  expect(plane[120]).toBeGreaterThan(0.95);
  expect(plane[80 * size.width + 20]).toBeLessThan(0.1);
});
