import { KernelHeap } from "@/core/kernels/kernelHeap";
import type { Size } from "@/core/spatial/areaReduce";
import { BETWEEN_PARTS, placesBetween, type Between } from "@/core/view/enlarge";

/**
 * What a whole frame shows that a smaller one of the same plan cannot: laid over smaller frames of other plans it makes them whole again,
 * but for what has changed in detail since. Where nothing has, they are the whole frame to the bit.
 *
 * Memory  8 bytes a pixel of the whole, and some rows.
 */
export class KeptDetail {
  readonly #detail: Int16Array;
  readonly #heap: KernelHeap;
  readonly #down: Between;
  /** Two rows of the smaller one, what lies between them, and a row of the whole and of its detail. */
  readonly #rows: readonly [number, number];
  readonly #between: number;
  readonly #columns: number;
  readonly #frameRow: number;
  readonly #detailRow: number;

  constructor(
    readonly small: Size,
    readonly whole: Size,
  ) {
    const [smallRow, wholeRow] = [rowBytes(small), rowBytes(whole)];
    const heap = (this.#heap = new KernelHeap(5 * (smallRow + wholeRow)));
    this.#detail = new Int16Array(4 * whole.width * whole.height);
    this.#rows = [heap.reserve(smallRow), heap.reserve(smallRow)];
    this.#between = heap.reserve(2 * smallRow + 16); // the last pixel is read with one after it, of no weight
    this.#columns = heap.put(columnsBetween(small.width, whole.width));
    this.#frameRow = heap.reserve(wholeRow);
    this.#detailRow = heap.reserve(2 * wholeRow);
    this.#down = placesBetween(small.height, whole.height);
  }

  /** Keeps what a whole frame shows beside the smaller one of the same plan. */
  keep(whole: Uint8ClampedArray, small: Uint8ClampedArray): void {
    const [row, pixels] = [4 * this.whole.width, rowBytes(this.whole) / 4];
    const { run } = this.#heap;
    const [frame, detail] = [this.#heap.u8(this.#frameRow, row), this.#heap.i16(this.#detailRow, row)];
    this.#forRows(small, (y) => {
      frame.set(whole.subarray(row * y, row * (y + 1)));
      run.besideEnlarged(this.#between, this.#columns, this.#frameRow, this.#detailRow, pixels);
      this.#detail.set(detail, row * y);
    });
  }

  /** Lays what was kept over a smaller frame. `out` has the size of the whole. */
  lay(small: Uint8ClampedArray, out: Uint8ClampedArray): void {
    const [row, pixels] = [4 * this.whole.width, rowBytes(this.whole) / 4];
    const { run } = this.#heap;
    const [frame, detail] = [this.#heap.u8(this.#frameRow, row), this.#heap.i16(this.#detailRow, row)];
    this.#forRows(small, (y) => {
      detail.set(this.#detail.subarray(row * y, row * (y + 1)));
      run.enlargedWith(this.#between, this.#columns, this.#detailRow, this.#frameRow, pixels);
      out.set(frame, row * y);
    });
  }

  /** Calls for each row of the whole, once what lies there of the smaller one is between the rows. */
  #forRows(small: Uint8ClampedArray, work: (y: number) => void): void {
    const { width, height } = this.small;
    const heap = this.#heap;
    const bytes = rowBytes(this.small);
    const laid = [-1, -1];
    const lay = (y: number) => {
      const row = Math.min(y, height - 1);
      const slot = row % 2;
      if (laid[slot] !== row) heap.u8(this.#rows[slot]!, 4 * width).set(small.subarray(4 * width * row, 4 * width * (row + 1)));
      laid[slot] = row;
      return this.#rows[slot]!;
    };
    for (let y = 0; y < this.whole.height; y++) {
      const [first, part] = [this.#down.first[y]!, this.#down.part[y]!];
      heap.run.betweenRows(lay(first), lay(first + 1), this.#between, bytes, part);
      work(y);
    }
  }
}

/** Bytes of a row of 4 a pixel, as the kernels take them. */
const rowBytes = ({ width }: Size) => 16 * Math.ceil(width / 4);

/**
 * For each pixel of a row, where the one before it lies in a shorter one, in bytes, and both their parts as two whole numbers of 16 bits.
 */
function columnsBetween(from: number, to: number): Int32Array {
  const { first, part } = placesBetween(from, to);
  const columns = new Int32Array(2 * 4 * Math.ceil(to / 4));
  for (let x = 0; x < to; x++) columns.set([8 * first[x]!, (BETWEEN_PARTS - part[x]!) | (part[x]! << 16)], 2 * x);
  return columns;
}
