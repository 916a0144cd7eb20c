import { CELL_FLOATS, scratchHeap, type KernelHeap } from "../kernels/kernelHeap";
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
  const reach = boxReach(sigma);
  const inRow = CELL_FLOATS * width;
  const inRounds = BOX_ROUNDS * (inRow * (rowsHeld(height, reach) + 3) + width);
  const heap = scratchHeap(4 * tone.length + 4 * size.width + 8 * (CELL_FLOATS + inRow + inRounds));
  const { run } = heap;
  const [toneAt, own] = [
    heap.put(tone),
    heap.put(Float64Array.from({ length: CELL_FLOATS }, (_, k) => ITSELF * (k < slices ? k / (slices - 1) : 0))),
  ];
  const columns = heap.put(placesOf(size.width, width).map((column) => 4 * CELL_FLOATS * column));
  const rows = placesOf(size.height, height);
  // A cell may hold more pixels than its neighbour: each counts as its part of the picture.
  const share = (width * height) / tone.length;
  const sums = heap.reserve(8 * inRow);
  const counts = sums + 4 * inRow;
  let done = 0;
  /** Rows of what lies in the cells themselves: the sums of each slice, then the counts. */
  const splat: RowsInTurn = (row) => {
    heap.f32(sums, 2 * inRow).fill(0);
    const first = done;
    while (done < size.height && rows[done] === row) done++;
    run.splatSlices(toneAt + 4 * first * size.width, size.width, done - first, columns, sums, counts, share, slices);
    return sums;
  };
  const rounds = reach > 0 ? BOX_ROUNDS : 0;
  const around = Array.from({ length: rounds }).reduce<RowsInTurn>((before) => boxRound(heap, before, small, reach), splat);

  const cells = new Float32Array(inRow * height);
  for (let y = 0; y < height; y++) {
    const at = around(y);
    run.meanSlices(at, at + 4 * inRow, width, own, ITSELF);
    cells.set(heap.f32(at, inRow), y * inRow);
  }
  return cells;
}

/** Rows asked for one after the other, each as a place in the heap where it lies until the next is asked for. */
type RowsInTurn = (row: number) => number;

/** Rows after a round of the box: few are held at once, for in the cache they are at hand. */
function boxRound(heap: KernelHeap, before: RowsInTurn, { width, height }: Size, reach: number): RowsInTurn {
  const [across, down] = [heap.put(sharesInside(width, reach)), sharesInside(height, reach)];
  const inRow = 2 * CELL_FLOATS * width;
  const [out, sums] = [heap.reserve(4 * inRow), heap.reserve(8 * inRow)];
  heap.f32(sums, 2 * inRow).fill(0);
  const held = rowsHeld(height, reach);
  const ring = heap.reserve(4 * inRow * held);
  const place = (row: number) => ring + 4 * inRow * (row % held);
  let next = 0;
  return (row) => {
    for (; next <= row + reach; next++) {
      const last = next - 2 * reach - 1;
      if (next < height) heap.run.boxAcross(before(next), place(next), width, 2, reach, across);
      heap.run.boxDown(next < height ? place(next) : 0, last < 0 ? 0 : place(last), sums, out, inRow, down[Math.max(next - reach, 0)]!);
    }
    return out;
  };
}

/** Rows that a round holds: those of the box, and the one that leaves it. */
function rowsHeld(height: number, reach: number): number {
  return Math.min(2 * reach + 2, height);
}

/** In which of some cells each of many pixels lies. */
function placesOf(pixels: number, cells: number): Uint32Array {
  return Uint32Array.from({ length: pixels }, (_, i) => Math.min(Math.floor(((i + 0.5) / pixels) * cells), cells - 1));
}
