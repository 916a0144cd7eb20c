import { restOf } from "../fields";
import { edgeBurnFields } from "./fields";
import fc from "fast-check";
import { expect, test } from "vitest";
import { gridOf, wholeGrid } from "../../spatial/grid";
import { edgeShare } from "./edgeBurn";
import { anyNumber } from "../../../../tests/anyNumber";

const size = { width: 300, height: 200 };
const at = (plane: Float32Array, x: number, y: number) => plane[y * size.width + x]!;

test("nothing in the middle, all in the corners, and more the nearer to the border", () => {
  const share = edgeShare(restOf(edgeBurnFields), wholeGrid(size));
  expect(at(share, 150, 100)).toBe(0);
  for (const [x, y] of [
    [0, 0],
    [299, 0],
    [0, 199],
    [299, 199],
  ] as const)
    expect(at(share, x, y)).toBeGreaterThan(0.98);
  for (let x = 151; x < 300; x++) expect(at(share, x, 60)).toBeGreaterThanOrEqual(at(share, x - 1, 60));
});

test("straight, all of the border gets it; as an oval, its middles get less than the corners", () => {
  const along = (straight: number) => at(edgeShare({ ...restOf(edgeBurnFields), straight }, wholeGrid(size)), 0, 100);
  expect(along(1)).toBeGreaterThan(0.98);
  expect(along(0)).toBeLessThan(0.7);
  expect(along(0)).toBeGreaterThan(0.1);
});

test("its middle moves, and it still reaches every border", () => {
  const share = edgeShare({ ...restOf(edgeBurnFields), straight: 1, x: 0.25, y: -0.1 }, wholeGrid(size));
  expect(at(share, 225, 70)).toBe(0);
  for (const [x, y] of [
    [0, 70],
    [299, 70],
    [225, 0],
    [225, 199],
  ] as const)
    expect(at(share, x, y)).toBeGreaterThan(0.97);
});

test("a part of the picture is what the whole is there, at any setting, and between 0 and 1", () => {
  const unit = anyNumber(0, 1);
  fc.assert(
    fc.property(unit, unit, unit, unit, (x, y, begins, straight) => {
      const settings = { x: x - 0.5, y: y - 0.5, begins: 0.95 * begins, straight };
      const whole = edgeShare(settings, wholeGrid(size));
      const part = edgeShare(settings, gridOf({ width: 40, height: 30 }, 200, 110, size));
      for (let i = 0; i < part.length; i++) {
        const same = whole[(110 + Math.floor(i / 40)) * size.width + 200 + (i % 40)]!;
        if (Math.abs(part[i]! - same) > 1e-7 || !(part[i]! >= 0 && part[i]! <= 1)) return false;
      }
      return true;
    }),
    { seed: 3, numRuns: 40 },
  );
});

test("no band shows where it begins: it bends as gently there as anywhere", () => {
  const grid = wholeGrid({ width: 2000, height: 3 });
  const row = edgeShare({ x: 0, y: 0, begins: 0.4, straight: 1 }, grid).subarray(2000, 4000);
  const bends = Array.from({ length: 1998 }, (_, i) => row[i]! - 2 * row[i + 1]! + row[i + 2]!);
  const jumps = bends.map((bend, i) => Math.abs(bend - (bends[i - 1] ?? bend)));
  expect(Math.max(...jumps)).toBeLessThan(Math.max(...bends.map(Math.abs)) / 20);
});

test("is as far in on the left as on the right, and a picture mirrored gets its share mirrored, to the pixel", () => {
  const settings = { ...restOf(edgeBurnFields), straight: 0.4 };
  const share = edgeShare(settings, wholeGrid(size));
  const moved = edgeShare({ ...settings, x: 0.1, y: 0.05 }, wholeGrid(size));
  const mirrored = edgeShare({ ...settings, x: -0.1, y: -0.05 }, wholeGrid(size));
  for (let y = 0; y < 200; y += 7)
    for (let x = 0; x < 300; x += 7) {
      expect(at(share, x, y)).toBeCloseTo(at(share, 299 - x, 199 - y), 6);
      expect(at(moved, x, y)).toBeCloseTo(at(mirrored, 299 - x, 199 - y), 6);
    }
});

test("half way between where it begins and the border a straight edge gives half, by where the pixel's middle lies", () => {
  // 100 pixels from the middle to the border; it begins at 20 of them, so 60 is half way: between the pixels 159 and 160 … of 200.
  const share = edgeShare({ x: 0, y: 0, begins: 0.2, straight: 1 }, wholeGrid({ width: 200, height: 200 }));
  const row = (x: number) => share[100 * 200 + x]!;
  expect((row(159) + row(160)) / 2).toBeCloseTo(0.5, 4);
  expect((row(39) + row(40)) / 2).toBeCloseTo(0.5, 4);
});
