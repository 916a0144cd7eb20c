import type { OutputSpace } from "@/core/colour/printColour";
import type { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf } from "@/core/kernels/pairTable";
import { DITHER_PERIOD, ditherRow, noiseLine, type Noise } from "@/core/view/dither";
import { WAVES_PERIOD } from "@/core/view/coderNoise";
import type { ArraySlots } from "./arraySlots";
import type { PlaneName } from "./bandMachine";
import type { ChromaBand } from "./chromaBand";
import { padded } from "./surroundingsBand";

/** What an output reads of the machine it is of. */
interface Holder {
  readonly plane: Readonly<Record<PlaneName, number>>;
  readonly tables: ArraySlots;
  readonly pixels: number;
}

/**
 * Turns the tones of the band in a machine, and the colour beside them, into pixels and levels. What it gives are views into the heap: copy
 * them before the next call.
 */
export class OutputBand {
  readonly #bytes: number;
  readonly #levels: number;
  readonly #ditherRow: number;
  readonly #wavesRow: number;
  /** A row without dither, then all rows of it. */
  readonly #ditherTile: number;
  #isDitherLaid = false;
  #table: Float32Array = new Float32Array(4);

  /** Bytes it reserves in the heap of a machine of so many pixels. */
  static bytes(capacity: number): number {
    return (4 + 6) * capacity + 4 * 4 * Math.max(capacity, DITHER_PERIOD) + 4 * WAVES_PERIOD + 4 * DITHER_PERIOD * (1 + DITHER_PERIOD) + 64;
  }

  constructor(
    readonly heap: KernelHeap,
    capacity: number,
    readonly machine: Holder,
    readonly chroma: ChromaBand,
  ) {
    this.#bytes = heap.reserve(4 * capacity);
    this.#levels = heap.reserve(6 * capacity);
    this.#ditherRow = heap.reserve(4 * 4 * Math.max(capacity, DITHER_PERIOD));
    this.#wavesRow = heap.reserve(4 * WAVES_PERIOD);
    this.#ditherTile = heap.reserve(4 * DITHER_PERIOD * (1 + DITHER_PERIOD));
  }

  /** Sets the table that tones are read through, in levels of the output. */
  setTable(table: Float32Array): void {
    this.#table = table;
  }

  /** Sets the space whose channels colour is shown and written in, and in how many bits. */
  setSpace(space: OutputSpace, depth: 8 | 16): void {
    this.chroma.setOutput(space, depth);
  }

  /**
   * tone → opaque grey pixels of the band, 4 bytes each, in rows of a width, of which the first is row y of what is shown; dithered or
   * flat.
   */
  greyRgba(width: number, y: number, dithered: boolean): Uint8Array {
    const [table, knots] = this.#greys();
    return this.#rgbaRows(width, y, dithered, (from, out, n, dither) => {
      this.heap.run.greyToRgba(this.machine.plane.tone + 4 * from, out, n, table, knots, dither, DITHER_PERIOD - 1);
    });
  }

  /** red, green, blue → opaque Display P3 pixels of the band. */
  colourRgba(): Uint8Array {
    const { plane, pixels } = this.machine;
    this.heap.run.colourToRgba(plane.red, plane.green, plane.blue, this.#bytes, padded(pixels), ...this.#greys());
    return this.heap.u8(this.#bytes, 4 * pixels);
  }

  /** The same with the colour on them: tone, a, b → opaque pixels. */
  printRgba(width: number, y: number, dithered: boolean): Uint8Array {
    const greys = this.#greys();
    return this.#rgbaRows(width, y, dithered, (from, out, n, dither) => {
      this.chroma.toRgba(from, n, out, greys, [dither, DITHER_PERIOD - 1]);
    });
  }

  /** Makes pixels row after row; what a kernel writes beyond a row, to fill its four, the next row writes over. */
  #rgbaRows(width: number, y: number, dithered: boolean, row: (from: number, out: number, n: number, dither: number) => void): Uint8Array {
    const { pixels } = this.machine;
    const n = padded(width);
    if (dithered) this.#layDither();
    for (let from = 0; from < pixels; from += width, y++) {
      const line = dithered ? 1 + (y & (DITHER_PERIOD - 1)) : 0;
      row(from, this.#bytes + 4 * from, n, this.#ditherTile + 4 * DITHER_PERIOD * line);
    }
    return this.heap.u8(this.#bytes, 4 * pixels);
  }

  /** tone, a, b → one row of 8-bit levels of three channels, dithered: each by waves of its own, if there are any. */
  print8Row(from: number, width: number, row: Float32Array | Noise): Uint8Array {
    const n = padded(width);
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    const nextRow = row instanceof Float32Array ? 0 : this.#setWaves(row, n);
    this.chroma.to8(from, n, this.#bytes, this.#greys(), [this.#ditherRow, mask], nextRow);
    return this.heap.u8(this.#bytes, 3 * width);
  }

  /** tone, a, b → 16-bit levels of three channels of the band. */
  print16(): Uint16Array {
    const { pixels } = this.machine;
    this.chroma.to16(padded(pixels), this.#levels, this.#greys());
    return this.heap.u16(this.#levels, 3 * pixels);
  }

  /** tone → one row of 8-bit levels, dithered. */
  grey8Row(from: number, width: number, row: Float32Array | Noise): Uint8Array {
    const [tone, n] = [this.machine.plane.tone + 4 * from, padded(width)];
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    this.heap.run.grey8(tone, this.#bytes, n, ...this.#greys(), this.#ditherRow, mask);
    return this.heap.u8(this.#bytes, width);
  }

  /** tone → 16-bit levels of the band. */
  grey16(): Uint16Array {
    const { plane, pixels } = this.machine;
    this.heap.run.grey16(plane.tone, this.#levels, padded(pixels), ...this.#greys());
    return this.heap.u16(this.#levels, pixels);
  }

  /** Lays the dither out, which takes long to make, once somebody looks at it. */
  #layDither(): void {
    if (this.#isDitherLaid) return;
    for (let y = 0; y < DITHER_PERIOD; y++) this.heap.f32(this.#ditherTile + 4 * DITHER_PERIOD * (1 + y), DITHER_PERIOD).set(ditherRow(y));
    this.#isDitherLaid = true;
  }

  /** Where the table lies, and its knots. */
  #greys(): readonly [number, number] {
    return [this.machine.tables.at(this.#table), knotsOf(this.#table)];
  }

  /** Sets offsets for a row that begin anew after a period. Returns the mask of places in it. */
  #setDither(row: Float32Array): number {
    this.heap.f32(this.#ditherRow, row.length).set(row);
    return DITHER_PERIOD - 1;
  }

  /** Makes offsets for each pixel of a row. Returns the same. */
  #setNoise({ y, amplitude }: Noise, n: number): number {
    this.heap.run.noiseRow(this.#ditherRow, n, noiseLine(y), amplitude);
    return -1;
  }

  /** Makes, behind those, the offsets of each channel. Returns how far behind. */
  #setWaves({ y, waves }: Noise, n: number): number {
    if (!waves) return 0;
    const from = (y % WAVES_PERIOD) * WAVES_PERIOD;
    waves.forEach((plane, c) => {
      this.heap.f32(this.#wavesRow, WAVES_PERIOD).set(plane.subarray(from, from + WAVES_PERIOD));
      this.heap.run.offsetRow(this.#ditherRow, this.#wavesRow, WAVES_PERIOD - 1, this.#ditherRow + 4 * n * (c + 1), n);
    });
    return 4 * n;
  }
}
