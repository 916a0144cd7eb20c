import type { ExposureStroke } from "../../steps/placedStops";
import { expect, test } from "vitest";
import { layStrokes } from "../../brush/layStrokes";
import { wholeGrid } from "../../spatial/grid";
import { accentMap, accents } from "./accents";
import { exposureGoal } from "./exposure";

const size = { width: 240, height: 160 };
/** Lights and darks of several sizes on a slope. */
const picture = Float32Array.from({ length: size.width * size.height }, (_, i) => {
  const [x, y] = [i % size.width, Math.floor(i / size.width)];
  return 0.5 + 0.001 * (x - 120) + 0.12 * Math.sin(x / 11) * Math.cos(y / 14) + 0.05 * Math.sin(x / 4 + y / 5);
});

function laid(strokes: readonly ExposureStroke[]): Float32Array {
  const map = (burns: boolean) => {
    const plane = new Float32Array(size.width * size.height);
    const own = strokes.filter((stroke) => stroke.burns === burns);
    layStrokes(plane, wholeGrid(size), own, exposureGoal);
    return plane;
  };
  const darks = map(true);
  return map(false).map((light, i) => light - darks[i]!);
}

function correlation(a: Float32Array, b: Float32Array): number {
  const mean = (plane: Float32Array) => plane.reduce((sum, value) => sum + value, 0) / plane.length;
  const [meanA, meanB] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((value, i) => {
    const [da, db] = [value - meanA, b[i]! - meanB];
    [ab, aa, bb] = [ab + da * db, aa + da * da, bb + db * db];
  });
  return ab / Math.sqrt(aa * bb);
}

test.each([0.02, 0.04])(
  "at a scale of %f the strokes lay what is wanted: lights lighter, darks darker, a third of a stop at the most",
  (scale) => {
    const strokes = accents(picture, size, scale);
    expect(strokes.length).toBeGreaterThan(20);
    expect(strokes.length).toBeLessThanOrEqual(500);
    const map = laid(strokes);
    expect(correlation(map, accentMap(picture, size, scale * size.width))).toBeGreaterThan(0.9);
    expect(map.reduce((most, stops) => Math.max(most, Math.abs(stops)), 0)).toBeLessThan(1 / 3);
  },
);

test("the same picture gives the same strokes, and one without lights and darks gives none", () => {
  expect(accents(picture, size, 0.03)).toEqual(accents(picture, size, 0.03));
  expect(
    accents(
      picture.map(() => 0.4),
      size,
      0.03,
    ),
  ).toEqual([]);
});

test("a light in the very corner is found like any other", () => {
  const corner = (x: number, y: number) => {
    const tone = Float32Array.from({ length: size.width * size.height }, (_, i) => {
      const [px, py] = [i % size.width, Math.floor(i / size.width)];
      return Math.hypot(px - x, py - y) < 8 ? 0.9 : 0.3;
    });
    return laid(accents(tone, size, 0.04))[x + y * size.width]!;
  };
  expect(corner(0, 0)).toBeGreaterThan(0.1);
  expect(corner(0, 0)).toBeCloseTo(corner(size.width - 1, size.height - 1), 2);
});
