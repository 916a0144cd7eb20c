import { CoreError } from "@/core/errors";
import { LEAST_DEPTH, LEAST_SHARE, MOMENTS, type Grain } from "@/core/grain/grain";
import type { Matrix3 } from "@/core/colour/matrix3";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { emptyPlanes, type Planes } from "@/core/kernels/planes";
import { CHANNELS, type Weights } from "@/core/mix/weights";
import { coveredRows, laidCoverage, reduceRow, type Size } from "@/core/spatial/areaReduce";

/** What of a pixel is rendered by itself: the two its grain stands for, or the whole. */
export type Part = "darker" | "lighter" | undefined;

/** A row of a reduced picture. Views into the heap: copy them before the next row. */
export interface ReducedRow {
  colour: Planes;
  grain: Grain;
  packed: Uint32Array;
}

const GRAIN_PLANES = 7;

/** Colour and grain of rows, plane after plane in a heap. */
class Rows {
  readonly stride: number;
  readonly colour: number;
  readonly grain: number;
  readonly packed: number;

  constructor(
    readonly heap: KernelHeap,
    readonly width: number,
  ) {
    this.stride = 4 * padded(width);
    this.colour = heap.reserve(3 * this.stride);
    this.grain = heap.reserve(GRAIN_PLANES * this.stride);
    this.packed = heap.reserve(this.stride);
  }

  /** What a heap needs for them. */
  static bytes(width: number): number {
    return 4 * padded(width) * (3 + GRAIN_PLANES + 1) + 1024;
  }

  f32(at: number, plane: number): Float32Array {
    return this.heap.f32(at + plane * this.stride, this.width);
  }

  putColour(colour: Planes, from: number, n: number, at = this.colour): void {
    CHANNELS.forEach((name, c) => this.f32(at, c).set(colour[name].subarray(from, from + n)));
  }

  takeColour(at: number): Planes {
    return { red: this.f32(at, 0), green: this.f32(at, 1), blue: this.f32(at, 2) };
  }

  takeGrain(): Grain {
    const lighter = this.grain + 3 * this.stride;
    return { darker: this.takeColour(this.grain), lighter: this.takeColour(lighter), share: this.f32(this.grain, 6) };
  }
}

/**
 * Brings rows of a picture down to a smaller size: the mean of the area each new pixel covers, in linear light, and the grain of
 * what lies inside it.
 *
 * Shape   `source` and `reduced` as in `areaReduceRows`. `light` gives luminance in the primaries of the rows; green must give some.
 * Errors  CoreError `bad_file` where it does not.
 */
export class GrainReducer {
  readonly #source: Rows;
  readonly #reduced: Rows;
  readonly #sums: number;
  readonly #by: number;
  readonly #moments: number;
  readonly #columns;

  constructor(
    readonly source: Size,
    readonly reduced: Size,
    readonly light: Weights,
  ) {
    if (!(light.green > 0)) throw new CoreError("bad_file", "a source whose green gives no light");
    const strides = [source.width, reduced.width].map((width) => 4 * padded(width)) as [number, number];
    const moments = MOMENTS.length * strides[1];
    const heap = new KernelHeap(
      Rows.bytes(source.width) + Rows.bytes(reduced.width) + (MOMENTS.length + 1) * strides[0] + moments + 4 * strides[1] + 64,
    );
    this.#source = new Rows(heap, source.width);
    this.#reduced = new Rows(heap, reduced.width);
    this.#sums = heap.reserve(MOMENTS.length * strides[0]);
    this.#by = heap.reserve(strides[0]);
    this.#moments = heap.reserve(moments);
    this.#columns = laidCoverage(heap, source.width, reduced.width);
  }

  /** Reduced rows `from` up to `to`, each shown to `take`; `colour` and `grain` hold the source rows from `first` on. */
  forRows(
    colour: Planes,
    grain: Grain | undefined,
    first: number,
    from: number,
    to: number,
    take: (y: number, row: ReducedRow) => void,
  ): void {
    const { heap, stride } = this.#source;
    const sums = heap.f32(this.#sums, (MOMENTS.length * stride) / 4);
    for (let y = from; y < to; y++) {
      sums.fill(0);
      for (const { row, weight } of coveredRows(this.source.height, this.reduced.height, y)) {
        const at = (row - first) * this.source.width;
        if (grain) {
          this.#add(grain.darker, at, weight, grain.share, -1);
          this.#add(grain.lighter, at, weight, grain.share, 1);
        } else this.#add(colour, at, weight);
      }
      take(y, this.#finish());
    }
  }

  /** Adds a row by its weight, or by that part of it which its share is, or leaves. */
  #add(colour: Planes, from: number, weight: number, share?: Float32Array, sign = 1): void {
    const { heap, stride, width } = this.#source;
    const { red, green, blue } = this.light;
    const by = heap.f32(this.#by, width);
    if (share) {
      by.set(share.subarray(from, from + width));
      heap.run.scaleAdd(this.#by, padded(width), sign * weight, sign < 0 ? weight : 0);
    } else by.fill(weight);
    this.#source.putColour(colour, from, width);
    const at = this.#source.colour;
    heap.run.addMoments(at, at + stride, at + 2 * stride, this.#by, this.#sums, stride, padded(width), red, green, blue);
  }

  /** Brings the sums down to the width of the reduced row. */
  #narrow(): void {
    const { width } = this.#reduced;
    MOMENTS.forEach((_, k) => {
      const sums = this.#sums + k * this.#source.stride;
      const moments = this.#moments + k * this.#reduced.stride;
      if (this.source.width === 2 * width) this.#source.heap.run.pairMeans(sums, moments, padded(width));
      else reduceRow(this.#source.heap, sums, this.#columns, moments);
    });
  }

  #finish(): ReducedRow {
    const { heap, stride, width, colour, grain, packed } = this.#reduced;
    const { red, green, blue } = this.light;
    this.#narrow();
    for (let c = 0; c < 3; c++) this.#reduced.f32(colour, c).set(this.#reduced.f32(this.#moments, c));
    const n = padded(width);
    heap.run.grainOf(this.#moments, grain, stride, n, red, green, blue, LEAST_DEPTH, LEAST_SHARE);
    heap.run.packGrain(colour, grain, stride, packed, n);
    return { colour: this.#reduced.takeColour(colour), grain: this.#reduced.takeGrain(), packed: heap.u32(packed, width) };
  }
}

const UNPACK_AT_ONCE = 16384;

/** Grain from its words, for pixels of these means; undefined where no pixel has any. */
export function unpackGrain(mean: Planes, words: Uint32Array): Grain | undefined {
  if (!words.some((word) => word !== 0)) return undefined;
  const grain = emptyGrain(words.length);
  const width = Math.min(UNPACK_AT_ONCE, words.length);
  const rows = new Rows(new KernelHeap(Rows.bytes(width)), width);
  const { heap, stride, colour, packed } = rows;
  for (let from = 0; from < words.length; from += rows.width) {
    const n = Math.min(rows.width, words.length - from);
    rows.putColour(mean, from, n);
    heap.u32(packed, n).set(words.subarray(from, from + n));
    heap.run.unpackGrain(colour, packed, rows.grain, stride, padded(n));
    putGrain(grain, from, rows.takeGrain(), n);
  }
  return grain;
}

/** Linear colour through a matrix, in place. */
export function throughMatrix(colour: Planes, matrix: Matrix3): void {
  const { length } = colour.red;
  const width = Math.min(UNPACK_AT_ONCE, length);
  const rows = new Rows(new KernelHeap(Rows.bytes(width) + 64), width);
  const at = rows.heap.reserve(36);
  rows.heap.f32(at, 9).set(matrix);
  for (let from = 0; from < length; from += rows.width) {
    const n = Math.min(rows.width, length - from);
    rows.putColour(colour, from, n);
    rows.heap.run.throughMatrix(rows.colour, rows.stride, padded(n), at);
    const taken = rows.takeColour(rows.colour);
    for (const name of CHANNELS) colour[name].set(taken[name].subarray(0, n), from);
  }
}

export function emptyGrain(pixels: number): Grain {
  return { darker: emptyPlanes(pixels), lighter: emptyPlanes(pixels), share: new Float32Array(pixels) };
}

/** Copies the first pixels of grain into a larger one, from a place on. */
export function putGrain(grain: Grain, at: number, from: Grain, n = from.share.length): void {
  for (const part of ["darker", "lighter"] as const) putPlanes(grain[part], at, from[part], n);
  grain.share.set(from.share.subarray(0, n), at);
}

/** The same with colour. */
export function putPlanes(planes: Planes, at: number, from: Planes, n = from.red.length): void {
  for (const name of CHANNELS) planes[name].set(from[name].subarray(0, n), at);
}

function padded(n: number): number {
  return (n + 3) & ~3;
}
