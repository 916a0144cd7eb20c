import fc from "fast-check";
import { expect, test } from "vitest";
import { areaReduceRows, fitLongEdge, halveRows, rowsNeeded } from "./areaReduce";

const mean = (values: ArrayLike<number>) => Array.from(values).reduce((sum, v) => sum + v, 0) / values.length;

test("a half-size pixel is the mean of the four it covers", () => {
  const reduced = areaReduceRows(Float32Array.of(1, 3, 0, 0, 5, 7, 0, 8), 0, { width: 4, height: 2 }, { width: 2, height: 1 }, 0, 1);
  expect([...reduced]).toEqual([4, 2]);
});

test("pixels covered in part count in part", () => {
  const reduced = areaReduceRows(Float32Array.of(3, 6, 9), 0, { width: 3, height: 1 }, { width: 2, height: 1 }, 0, 1);
  expect(reduced[0]).toBeCloseTo((3 + 0.5 * 6) / 1.5, 6);
  expect(reduced[1]).toBeCloseTo((0.5 * 6 + 9) / 1.5, 6);
});

test("the mean stays, and any split into runs of rows gives the same", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 9 }),
      (width, height, edge, run) => {
        const size = { width, height };
        const reduced = fitLongEdge(size, edge);
        const plane = Float32Array.from({ length: width * height }, (_, i) => ((i * 7919) % 101) / 101);
        const whole = areaReduceRows(plane, 0, size, reduced, 0, reduced.height);
        expect(mean(whole)).toBeCloseTo(mean(plane), 4);
        const parts: number[] = [];
        for (let y = 0; y < reduced.height; y += run) {
          const to = Math.min(y + run, reduced.height);
          const { first, end } = rowsNeeded(size, reduced, y, to);
          parts.push(...areaReduceRows(plane.subarray(first * width, end * width), first, size, reduced, y, to));
        }
        expect(parts).toEqual([...whole]);
      },
    ),
    { seed: 61 },
  );
});

test("the long edge is brought down, never up, and a sliver keeps a pixel", () => {
  expect(fitLongEdge({ width: 6000, height: 4000 }, 1280)).toEqual({ width: 1280, height: 853 });
  expect(fitLongEdge({ width: 300, height: 200 }, 1280)).toEqual({ width: 300, height: 200 });
  expect(fitLongEdge({ width: 10000, height: 3 }, 100)).toEqual({ width: 100, height: 1 });
});

test("an exact half is the mean of each four, from any row on", () => {
  const size = { width: 34, height: 22 };
  const plane = Float32Array.from({ length: 34 * 22 }, (_, i) => ((i * 7919) % 101) / 101);
  const quick = halveRows(plane.subarray(34 * 8), 8, 17, 4, 11);
  for (let y = 4; y < 11; y++) {
    for (let x = 0; x < 17; x++) {
      const four = [0, 1, 34, 35].map((offset) => plane[2 * y * 34 + 2 * x + offset]!);
      expect(quick[(y - 4) * 17 + x]).toBeCloseTo(mean(four), 6);
    }
  }
  expect([...areaReduceRows(plane, 0, size, { width: 17, height: 11 }, 4, 11)]).toEqual([...quick]);
});
