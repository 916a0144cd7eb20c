import { isPixelForPixel, pictureAtPrint, type Placing } from "@/core/frame/frame";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { TURN_REACH, turnWeights } from "@/core/kernels/turnWeights";
import type { Size } from "@/core/spatial/areaReduce";

/** Edge of the squares in which pixels are taken over, so that what lies beside each other on either side stays in the cache. */
const SQUARE = 32;
/** Edge of the squares of a picture that are turned at a time, and what is read beyond them. */
const TILE = 256;
const BEYOND = TURN_REACH + 3;

/** Cuts prints out of planes of their pictures. */
export class PrintCutter {
  #heap: ReturnType<typeof makeHeap> | undefined;

  /**
   * The rows of a print from `from` up to `to`, out of a plane of its picture or of all of it that they need. Where pixels lie on pixels
   * they are taken over as they are; otherwise read between them, the last one going on at the picture's borders.
   *
   * Units   0–1, in and out. `plane` holds `size` pixels.
   */
  cut(plane: Float32Array, size: Size, placing: Placing, from = 0, to = placing.height): Float32Array {
    const out = new Float32Array(placing.width * (to - from));
    if (isPixelForPixel(placing)) takeOver(plane, size, placing, from, to, out);
    else this.#turn(plane, size, placing, from, to, out);
    return out;
  }

  #turn(plane: Float32Array, size: Size, placing: Placing, from: number, to: number, out: Float32Array): void {
    const { across, down } = placing;
    const reach = Math.max(Math.abs(across.x) + Math.abs(down.x), Math.abs(across.y) + Math.abs(down.y));
    const edge = Math.max(1, Math.floor((TILE - 2) / reach));
    for (let top = from; top < to; top += edge) {
      for (let left = 0; left < placing.width; left += edge) {
        const columns = Math.min(edge, placing.width - left);
        this.#turnTile(plane, size, placing, { left, top, columns, rows: Math.min(edge, to - top) }, from, out);
      }
    }
  }

  #turnTile(
    plane: Float32Array,
    size: Size,
    placing: Placing,
    { left, top, columns, rows }: { left: number; top: number; columns: number; rows: number },
    from: number,
    out: Float32Array,
  ): void {
    const { heap, tile, cut, weights } = (this.#heap ??= makeHeap());
    const corners = [0, 1, 2, 3].map((k) => pictureAtPrint(placing, left + (k & 1 ? columns : 0), top + (k & 2 ? rows : 0)));
    const x = Math.floor(Math.min(...corners.map((corner) => corner.x))) - BEYOND;
    const y = Math.floor(Math.min(...corners.map((corner) => corner.y))) - BEYOND;
    const width = Math.ceil(Math.max(...corners.map((corner) => corner.x))) + BEYOND - x;
    const height = Math.ceil(Math.max(...corners.map((corner) => corner.y))) + BEYOND - y;
    const laid = heap.f32(tile, width * height);
    for (let k = 0; k < height; k++) putRow(plane, size, x, y + k, laid, k * width, width);
    const begin = pictureAtPrint(placing, 0.5, 0.5);
    const { across, down } = placing;
    const line = [begin.x - 0.5, begin.y - 0.5, across.x, across.y, down.x, down.y] as const;
    heap.run.turnPiece(tile, width, x, y, ...line, left, top, columns, rows, cut, weights);
    const made = heap.f32(cut, columns * rows);
    for (let k = 0; k < rows; k++) out.set(made.subarray(k * columns, (k + 1) * columns), (top + k - from) * placing.width + left);
  }
}

function makeHeap() {
  const most = TILE + 2 * BEYOND + 4;
  const weights = turnWeights();
  const heap = new KernelHeap(4 * (2 * most * most + weights.length) + 1024);
  // After the tile comes more: its last row is read beyond its end, by a weight of 0.
  return {
    heap,
    tile: heap.reserve(4 * most * most),
    cut: heap.reserve(4 * most * most),
    weights: heap.put(weights),
  };
}

/** Lays a run of a row out, the picture's last pixels going on beyond its borders. */
function putRow(plane: Float32Array, { width, height }: Size, x: number, y: number, out: Float32Array, to: number, count: number): void {
  const at = Math.min(Math.max(y, 0), height - 1) * width;
  const first = Math.min(Math.max(-x, 0), count);
  const end = Math.min(Math.max(width - x, first), count);
  if (first > 0) out.fill(plane[at]!, to, to + first);
  out.set(plane.subarray(at + x + first, at + x + end), to + first);
  if (end < count) out.fill(plane[at + width - 1]!, to + end, to + count);
}

function takeOver(plane: Float32Array, size: Size, placing: Placing, from: number, to: number, out: Float32Array): void {
  const begin = pictureAtPrint(placing, 0.5, 0.5);
  const first = Math.floor(begin.y) * size.width + Math.floor(begin.x);
  const [acrossBy, downBy] = [placing.across, placing.down].map(({ x, y }) => Math.round(y) * size.width + Math.round(x)) as [
    number,
    number,
  ];
  const { width } = placing;
  if (acrossBy === 1) {
    for (let v = from; v < to; v++) out.set(plane.subarray(first + v * downBy, first + v * downBy + width), (v - from) * width);
    return;
  }
  for (let top = from; top < to; top += SQUARE) {
    for (let left = 0; left < width; left += SQUARE) {
      const [bottom, right] = [Math.min(top + SQUARE, to), Math.min(left + SQUARE, width)];
      for (let v = top; v < bottom; v++) {
        const end = (v - from) * width + right;
        for (let i = end - right + left, at = first + v * downBy + left * acrossBy; i < end; i++, at += acrossBy) out[i] = plane[at]!;
      }
    }
  }
}
