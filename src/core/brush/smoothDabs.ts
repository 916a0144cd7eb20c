import { scratchHeap } from "../kernels/kernelHeap";
import type { Size } from "../spatial/areaReduce";
import { FALLOFF_STEPS, shareAt } from "./falloff";
import type { PixelDab } from "./sharpDabs";
import type { StrokePlane } from "./strokePlane";

/** Dabs laid at a time: near one another along their way, so that the box around them is hardly larger than they are. */
const MOST_DABS = 16;
/** Most pixels that are laid on at a time. */
const MOST_PIXELS = 1 << 20;

/** Dabs of one stroke whose every pixel is told by its middle, laid by kernels on the box around them. */
export class SmoothDabs {
  readonly #size: Size;
  readonly #plane: StrokePlane;
  /** Of `falloffOf`. */
  readonly #table: Float32Array;
  readonly #goal: number;
  #dabs: PixelDab[] = [];

  constructor(size: Size, plane: StrokePlane, table: Float32Array, goal: number) {
    this.#size = size;
    this.#plane = plane;
    this.#table = table;
    this.#goal = goal;
  }

  add(dab: PixelDab): void {
    this.#dabs.push(dab);
    if (this.#dabs.length === MOST_DABS) this.layOn();
  }

  /** Lays what was not laid yet. */
  layOn(): void {
    const boxes = this.#dabs.map((dab) => boxOf(dab, this.#size));
    const left = Math.min(...boxes.map((box) => box.left));
    const right = Math.max(...boxes.map((box) => box.right));
    const top = Math.min(...boxes.map((box) => box.top));
    const bottom = Math.max(...boxes.map((box) => box.bottom));
    const width = right + 1 - left;
    const rows = Math.max(Math.floor(MOST_PIXELS / Math.max(width, 1)), 1);
    if (width > 0) for (let row = top; row <= bottom; row += rows) this.#layBox(left, row, width, Math.min(rows, bottom + 1 - row));
    this.#dabs = [];
  }

  #layBox(left: number, top: number, width: number, height: number): void {
    const { plane, finer } = this.#plane;
    const heap = scratchHeap(4 * width * height + this.#table.byteLength);
    const [values, table] = [heap.reserve(4 * width * height), heap.put(this.#table)];
    const box = heap.f32(values, width * height);
    const rowAt = (row: number) => (top + row) * this.#size.width + left;
    for (let row = 0; row < height; row++) box.set(plane.subarray(rowAt(row), rowAt(row) + width), row * width);
    for (const dab of this.#dabs) {
      const { top: first, bottom: last } = boxOf(dab, this.#size);
      const [from, to] = [Math.max(first - top, 0), Math.min(last - top, height - 1)];
      const [x, y] = [dab.x - left, dab.y - top];
      const { frame, reach, flow } = dab;
      const toFrame = [frame.left, frame.right, frame.up, frame.down] as const;
      heap.run.layDab(values, width, from, to, x, y, reach, ...toFrame, FALLOFF_STEPS / (reach * reach), flow, this.#goal, table);
    }
    for (let row = 0; row < height; row++) {
      plane.set(box.subarray(row * width, (row + 1) * width), rowAt(row));
      if (finer) this.#layFiner(finer, top + row, left, left + width);
    }
  }

  /** Pixels of a row that are held finer are laid on as such; what the kernels made of them falls away. */
  #layFiner(finer: Int32Array, row: number, from: number, end: number): void {
    for (let column = from, at = row * this.#size.width + from; column < end; column++, at++) {
      if (finer[at] === 0) continue;
      for (const dab of this.#dabs) {
        const share = dab.flow * falloffIn(dab, this.#table, column, row);
        if (share > 0) this.#plane.lay(at, this.#goal, share);
      }
    }
  }
}

/** The pixels a dab may touch, all included. */
function boxOf({ x, y, reach, frame }: PixelDab, { width, height }: Size) {
  return {
    left: Math.max(Math.ceil(x - reach / frame.left), 0),
    right: Math.min(Math.floor(x + reach / frame.right), width - 1),
    top: Math.max(Math.ceil(y - reach / frame.up), 0),
    bottom: Math.min(Math.floor(y + reach / frame.down), height - 1),
  };
}

function falloffIn({ x, y, reach, frame }: PixelDab, table: Float32Array, column: number, row: number): number {
  const u = (column - x) * (column < x ? frame.left : frame.right);
  const v = (row - y) * (row < y ? frame.up : frame.down);
  const step = (u * u + v * v) * (FALLOFF_STEPS / (reach * reach));
  return step < FALLOFF_STEPS ? shareAt(table, step) : 0;
}
