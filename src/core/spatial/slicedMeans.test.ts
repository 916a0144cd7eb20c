import { expect, test } from "vitest";
import { CELL_FLOATS } from "../kernels/kernelHeap";
import { boxBlur } from "./boxBlur";
import { slicedMeans } from "./slicedMeans";

/** The same, a slice at a time, in plain words. */
function plainly(tone: Float32Array, size: Size, small: Size, slices: number, sigma: number): Float32Array[] {
  const cells = small.width * small.height;
  return Array.from({ length: slices }, (_, k) => {
    const [sums, counts] = [new Float32Array(cells), new Float32Array(cells)];
    tone.forEach((t, i) => {
      const near = Math.max(0, 1 - Math.abs(t * (slices - 1) - k)) * (cells / tone.length);
      const column = Math.floor((((i % size.width) + 0.5) / size.width) * small.width);
      const row = Math.floor(((Math.floor(i / size.width) + 0.5) / size.height) * small.height);
      const cell = row * small.width + column;
      counts[cell] = counts[cell]! + near;
      sums[cell] = sums[cell]! + near * t;
    });
    const [sum, count] = [boxBlur(sums, small, sigma), boxBlur(counts, small, sigma)];
    return sum.map((s, i) => (s + (1e-4 * k) / (slices - 1)) / (count[i]! + 1e-4));
  });
}
type Size = { width: number; height: number };

test.each([
  [{ width: 61, height: 37 }, { width: 17, height: 11 }, 10, 3.5],
  [{ width: 40, height: 30 }, { width: 40, height: 30 }, 11, 2],
  [{ width: 9, height: 90 }, { width: 3, height: 30 }, 2, 40],
  [{ width: 30, height: 20 }, { width: 6, height: 4 }, 11, 0.1],
])("tones of %o on cells of %o in %d slices are those reckoned a slice at a time", (size, small, slices, sigma) => {
  const tone = Float32Array.from({ length: size.width * size.height }, (_, i) => Math.abs(Math.sin(0.37 * i)) ** 2);
  tone.set([0, 1, 0.5]);
  const means = slicedMeans(tone, size, small, slices, sigma);
  expect(means.length).toBe(CELL_FLOATS * small.width * small.height);
  plainly(tone, size, small, slices, sigma).forEach((slice, k) =>
    slice.forEach((mean, cell) => expect(Math.abs(means[CELL_FLOATS * cell + k]! - mean)).toBeLessThan(2e-6)),
  );
});

test("a larger picture, and a smaller one after it, leave nothing behind", () => {
  const of = (edge: number, t: number) =>
    slicedMeans(new Float32Array(edge * edge).fill(t), { width: edge, height: edge }, { width: 5, height: 5 }, 11, 2);
  const first = of(20, 0.3);
  of(90, 0.9);
  expect(of(20, 0.3)).toEqual(first);
});
