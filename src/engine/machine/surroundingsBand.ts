import { CoreError } from "@/core/errors";
import { CELL_FLOATS, type KernelHeap } from "@/core/kernels/kernelHeap";
import { wholeGrid } from "@/core/spatial/grid";
import type { Size } from "@/core/spatial/areaReduce";
import { layCells } from "@/core/spatial/layCells";
import type { SlicedBase, Surroundings } from "@/core/spatial/slicedBase";
import type { ToneBase } from "@/core/spatial/toneBase";
import type { PlaneName } from "./bandMachine";

/** Where a source lies that is only a part of a picture: its corner, and the whole picture's size at this scale. */
export interface SourcePlace {
  x: number;
  y: number;
  whole: Size;
}

/** Where a band lies in the whole picture: its first pixel, the pixels of a row, and the whole picture's size at this scale. */
export interface BandPlace {
  x: number;
  y: number;
  width: number;
  whole: Size;
}

/** Most places of a row of a picture's surroundings, and places made to each of their cells. */
const MOST_BASE_COLUMNS = 2560;
const MOST_FINER = 2;
/** Most cells of a row where surroundings lie in slices. */
const MOST_SLICED_COLUMNS = 512;
const CELL_ROW_LENGTH = CELL_FLOATS * MOST_SLICED_COLUMNS;
const BASE_ROW_LENGTH = 2 * Math.max(MOST_BASE_COLUMNS + 1, CELL_ROW_LENGTH);

/** What lies around the tones of the band in a machine, read from what was gathered of the whole picture. */
export class SurroundingsBand {
  readonly #baseRow: number;
  readonly #cellRows: number;
  /** Which rows of cells lie in the heap. */
  readonly #inCellRows: ({ cells: Float32Array; row: number } | undefined)[] = [];

  /** A guide as it is read for a band, and whose. */
  readonly #guide: { offset: number; slope: number };
  #guided: { of: ToneBase | undefined; x: number; y: number; width: number; n: number } = { of: undefined, x: 0, y: 0, width: 0, n: 0 };

  /** Bytes it reserves in the heap of a machine of so many pixels. */
  static bytes(capacity: number): number {
    return 4 * (BASE_ROW_LENGTH + 2 * CELL_ROW_LENGTH) + 8 * capacity + 64;
  }

  constructor(
    readonly heap: KernelHeap,
    readonly plane: Readonly<Record<PlaneName, number>>,
    capacity: number,
  ) {
    this.#guide = { offset: heap.reserve(4 * capacity), slope: heap.reserve(4 * capacity) };
    this.#baseRow = heap.reserve(4 * BASE_ROW_LENGTH);
    this.#cellRows = heap.reserve(8 * CELL_ROW_LENGTH);
  }

  /** Reads the surroundings of the tones in the machine, for every pixel of a band of `n`. */
  sample(base: Surroundings, place: BandPlace, out: number, n: number): void {
    if ("slices" in base) this.#sampleSlices(base, place, out, n);
    else this.sampleCells(base, place, out, n);
  }

  /** Reads a small plane of the whole picture smoothly between the middles of its cells. */
  sampleCells({ offset, width, height }: ToneBase, place: BandPlace, out: number, n: number): void {
    this.#sampleBase(offset, { width, height }, place, out, n, true);
  }

  #sampleBase(cells: Float32Array, size: Size, place: BandPlace, out: number, n: number, isSmooth: boolean): void {
    // Where cells are wider than pixels, places between them are made first, so that straight lines from one to the next show nowhere.
    const { plane, width, height } = finerPlane(cells, size, isSmooth ? Math.ceil(place.whole.width / size.width) : 1);
    if (width > MOST_BASE_COLUMNS) throw new CoreError("bad_size", `surroundings of ${width} cells a row, room for ${MOST_BASE_COLUMNS}`);
    const { run } = this.heap;
    const step = width / place.whole.width;
    const from = (place.x + 0.5) * step - 0.5;
    for (let done = 0, y = place.y; done < n; done += place.width, y++) {
      const [upper, part] = rowBetween(y, place, height);
      const [a, b] = [this.#cellRow(plane, width, upper), this.#cellRow(plane, width, Math.min(upper + 1, height - 1))];
      run.pairCells(a, b, part, this.#baseRow, width);
      run.sampleRow(this.#baseRow, out + 4 * done, padded(place.width), from, step, width - 1);
    }
  }

  /** Reads the surroundings of tones between cells, and between the tones of slices, for every pixel of the band. */
  #sampleSlices({ cells, slices, width, height, guide }: SlicedBase, place: BandPlace, out: number, n: number): void {
    const { tone, above } = this.plane;
    if (guide) {
      this.#sampleGuide(guide, place, n);
      this.heap.run.guided(tone, this.#guide.slope, this.#guide.offset, above, padded(n));
    }
    const own = guide ? above : tone;
    if (width > MOST_SLICED_COLUMNS)
      throw new CoreError("bad_size", `surroundings of ${width} cells a row, room for ${MOST_SLICED_COLUMNS}`);
    const { run } = this.heap;
    const step = width / place.whole.width;
    const from = (place.x + 0.5) * step - 0.5;
    for (let done = 0, y = place.y; done < n; done += place.width, y++) {
      const [upper, part] = rowBetween(y, place, height);
      const length = CELL_FLOATS * width;
      const [a, b] = [this.#cellRow(cells, length, upper), this.#cellRow(cells, length, Math.min(upper + 1, height - 1))];
      run.pairRows(a, b, part, this.#baseRow, width);
      run.sampleSlices(this.#baseRow, own + 4 * done, out + 4 * done, padded(place.width), from, step, width - 1, slices);
    }
  }

  /** Reads a guide for a band, unless it was read last: both tones that stand for a pixel are told by the same. */
  #sampleGuide(guide: ToneBase, place: BandPlace, n: number): void {
    const { x, y, width } = place;
    const last = this.#guided;
    if (last.of === guide && last.x === x && last.y === y && last.width === width && last.n === n) return;
    this.#sampleBase(guide.offset, guide, place, this.#guide.offset, n, false);
    this.#sampleBase(guide.slope!, guide, place, this.#guide.slope, n, false);
    this.#guided = { of: guide, x, y, width, n };
  }

  /** The place of a row of cells in the heap, where it is copied unless it lies there already: neighbours lie there together. */
  #cellRow(cells: Float32Array, length: number, row: number): number {
    const slot = row % 2;
    const at = this.#cellRows + 4 * slot * CELL_ROW_LENGTH;
    const inSlot = this.#inCellRows[slot];
    if (inSlot?.cells !== cells || inSlot.row !== row) {
      this.heap.f32(at, length).set(cells.subarray(row * length, (row + 1) * length));
      this.#inCellRows[slot] = { cells, row };
    }
    return at;
  }
}

/** Planes with places made between their cells: a base is read band by band. */
const finerPlanes = new WeakMap<Float32Array, { finer: number; plane: Float32Array }>();

function finerPlane(cells: Float32Array, { width, height }: Size, wanted: number): Size & { plane: Float32Array } {
  const finer = Math.min(wanted, MOST_FINER, Math.floor(MOST_BASE_COLUMNS / width));
  if (finer < 2) return { plane: cells, width, height };
  const size = { width: finer * width, height: finer * height };
  let known = finerPlanes.get(cells);
  if (known?.finer !== finer) finerPlanes.set(cells, (known = { finer, plane: layCells(cells, { width, height }, wholeGrid(size)) }));
  return { ...size, plane: known.plane };
}

/** Between which rows of cells a row of pixels lies: the upper one, and how far on. */
function rowBetween(y: number, place: BandPlace, height: number): [upper: number, part: number] {
  const row = Math.min(Math.max(((y + 0.5) / place.whole.height) * height - 0.5, 0), height - 1);
  const upper = Math.floor(row);
  return [upper, row - upper];
}

/** A number of pixels as kernels take them: four at a time. */
export function padded(n: number): number {
  return (n + 3) & ~3;
}
