import { scratchHeap } from "../kernels/kernelHeap";
import type { Size } from "./areaReduce";

/** Times a plane goes through the box: two make a tent, near enough to a Gaussian where no shape is looked at. */
export const BOX_ROUNDS = 2;

/**
 * A plane blurred with a window of about a Gaussian's size, at a cost that does not grow with it. Beyond the frame there is
 * nothing: a level plane stays level to its edge.
 *
 * Shape   width × height in and out, row after row; the input is not changed. Units: sigma in pixels, to the nearest whole box.
 */
export function boxBlur(plane: Float32Array, { width, height }: Size, sigma: number): Float32Array {
  const reach = boxReach(sigma);
  if (reach < 1) return plane.slice();
  const bytes = 4 * plane.length;
  const heap = scratchHeap(2 * bytes + 16 * width + 8 * height);
  const [at, between] = [heap.put(plane), heap.reserve(bytes)];
  const [across, down] = [heap.put(sharesInside(width, reach)), heap.put(sharesInside(height, reach))];
  const sums = heap.reserve(8 * width);
  for (let round = 0; round < BOX_ROUNDS; round++) {
    heap.run.boxRows(at, between, width, height, reach, across);
    heap.run.boxColumns(between, at, width, height, reach, down, sums);
  }
  return heap.f32(at, plane.length).slice();
}

/**
 * Pixels to either side in a box whose rounds have a standard deviation together, in pixels: the variance of BOX_ROUNDS boxes of 2r + 1 is
 * BOX_ROUNDS · ((2r + 1)² − 1) ∕ 12.
 */
export function boxReach(sigma: number): number {
  return Math.round((Math.sqrt((12 * sigma * sigma) / BOX_ROUNDS + 1) - 1) / 2);
}

/** One over how many places of the box around each lie within the frame. */
export function sharesInside(length: number, reach: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 1 / (Math.min(i + reach, length - 1) - Math.max(i - reach, 0) + 1));
}
