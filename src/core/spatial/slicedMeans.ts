import { CELL_FLOATS, scratchHeap } from "../kernels/kernelHeap";
import type { Size } from "./areaReduce";
import { boxReach, BOX_ROUNDS, sharesInside } from "./boxBlur";

/** Where nothing lies around that is like a tone, it stands for itself. */
const ITSELF = 1e-4;

/**
 * For each of some tones, even from black to white, the mean of the tones around each cell of a small picture that are near it.
 *
 * Shape   `tone` of `size` in; a cell of CELL_FLOATS floats for each pixel of `small` out, of which the first `slices` count.
 * Units   sigma, the standard deviation of what is around, in cells.
 */
export function slicedMeans(tone: Float32Array, size: Size, small: Size, slices: number, sigma: number): Float32Array {
  const { width, height } = small;
  const cells = width * height;
  const plane = 4 * CELL_FLOATS * cells;
  const heap = scratchHeap(3 * plane + 4 * tone.length + 4 * (size.width + size.height) + 8 * (width + height + CELL_FLOATS * (width + 1)));
  const { run } = heap;
  const [sums, counts, scratch] = [plane, plane, plane].map((bytes) => heap.reserve(bytes)) as [number, number, number];
  for (const at of [sums, counts]) heap.f32(at, plane / 4).fill(0);

  const begins = (length: number, count: number, bytes: number) =>
    Uint32Array.from({ length }, (_, i) => bytes * Math.min(Math.floor(((i + 0.5) / length) * count), count - 1));
  const columns = heap.put(begins(size.width, width, 4 * CELL_FLOATS));
  const rows = heap.put(begins(size.height, height, 4 * CELL_FLOATS * width));
  // A cell may hold more pixels than its neighbour: each counts as its part of the picture.
  const share = cells / tone.length;
  run.splatSlices(heap.put(tone), size.width, size.height, columns, rows, sums, counts, share, slices);

  const reach = boxReach(sigma);
  const [across, down] = [width, height].map((length) => heap.put(sharesInside(length, reach))) as [number, number];
  const inRow = heap.reserve(8 * CELL_FLOATS * width);
  for (let round = 0; reach > 0 && round < BOX_ROUNDS; round++)
    for (const at of [sums, counts]) {
      run.boxAcross(at, scratch, width, height, reach, across);
      run.boxDown(scratch, at, width, height, reach, down, inRow);
    }

  const own = Float64Array.from({ length: CELL_FLOATS }, (_, k) => ITSELF * (k < slices ? k / (slices - 1) : 0));
  run.meanSlices(sums, counts, cells, heap.put(own), ITSELF);
  return heap.f32(sums, plane / 4).slice();
}
