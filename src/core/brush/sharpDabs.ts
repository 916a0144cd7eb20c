import type { Size } from "../spatial/areaReduce";
import { KernelHeap } from "../kernels/kernelHeap";
import { FALLOFF_STEPS } from "./falloff";
import type { TowardsFrame } from "./towardsFrame";
import { PLACES, type StrokePlane } from "./strokePlane";

/** Rows of pixels that are reckoned at a time. */
const STRIP = 8;
const ALL = PLACES * PLACES;
/** Of a place less than this is left of what was there. */
const NOTHING = 1e-9;
/** Of `powers`. */
const MOST_WHOLE = 256;
/** Bytes of a pixel in the list of those that are held. */
const LISTED = 8 * (ALL + 1);

/** A dab in pixels, counted from the middle of the first of its grid. */
export interface PixelDab {
  x: number;
  y: number;
  reach: number;
  flow: number;
  frame: TowardsFrame;
}

/** What all dabs of a stroke share. */
export interface SharpStroke {
  hardness: number;
  /** Of those that are not pressed. */
  flow: number;
  /** Of `falloffOf`. */
  table: Float32Array;
}

/**
 * Dabs of one stroke that fall off over less than pixels tell, gathered and laid together.
 *
 * All of them lead to the same goal, so what they leave of a place is the product of what each leaves, in any order. Where a dab acts fully
 * it is a stretch of each line of places, told by its two ends: along the line it is counted how many there are. Only
 * where it falls off are places asked one by one. Each pixel is then laid on once, however many dabs lie on it.
 *
 * Decision  docs/decisions/0010-stroke-maps.md
 */
export class SharpDabs {
  readonly #size: Size;
  readonly #stroke: SharpStroke;
  readonly #dabs: PixelDab[] = [];

  constructor(size: Size, stroke: SharpStroke) {
    this.#size = size;
    this.#stroke = stroke;
  }

  add(dab: PixelDab): void {
    this.#dabs.push(dab);
  }

  /** Brings what the dabs cover nearer to a goal. Shape: plane of the grid's size. */
  layOn(plane: StrokePlane, goal: number): void {
    if (this.#dabs.length === 0) return;
    const { width, height } = this.#size;
    const [top, bottom] = rowsOf(this.#dabs, height);
    const strip = stripOf(width);
    // Of the stroke's own flow; of pressed dabs as many count as leave as much.
    const one = Math.min(logLeft(this.#stroke.flow), LEAST_LOG);
    strip.heap.f32(strip.table, this.#stroke.table.length).set(this.#stroke.table);
    strip.heap.f64(strip.powers, MOST_WHOLE).set(Float64Array.from({ length: MOST_WHOLE }, (_, count) => Math.exp(one * count)));
    for (let row = top; row <= bottom; row += STRIP) {
      const rows = Math.min(STRIP, bottom + 1 - row);
      for (const dab of this.#dabs) addDab(strip, dab, this.#stroke.hardness, one, row, rows);
      for (let k = 0; k < rows; k++) layRow(strip, plane, one, goal, row + k, k);
    }
  }
}

/** The first and the last row that any dab touches. */
function rowsOf(dabs: readonly PixelDab[], height: number): [number, number] {
  let [top, bottom] = [height, -1];
  for (const { y, reach, frame } of dabs) {
    top = Math.min(top, frame.up > 0 ? Math.max(Math.floor(y - (reach + 1) / frame.up), 0) : 0);
    bottom = Math.max(bottom, frame.down > 0 ? Math.min(Math.ceil(y + (reach + 1) / frame.down), height - 1) : height - 1);
  }
  return [top, bottom];
}

/** What dabs leave of the places of a strip of rows, where kernels keep it. Everything is as at first after a row was laid. */
interface Strip {
  heap: KernelHeap;
  width: number;
  /** Pixels from the beginning of a row to the next: one more than there are. */
  stride: number;
  /** As as/dabs.ts says: doubles, floats and bytes for each pixel, whole numbers for each row. */
  steps: number;
  left: number;
  touched: number;
  ends: Int32Array;
  /** The table of the stroke, and what 0, 1, 2, … of its dabs leave. */
  table: number;
  powers: number;
  /** A row of the plane, and of what of it is held finer. */
  values: number;
  finer: number;
  lines: number;
  list: number;
}

let kept: Strip | undefined;

/** One strip serves all strokes: it is clean between them. */
function stripOf(width: number): Strip {
  if (kept?.width === width) return kept;
  const stride = width + 1;
  const places = STRIP * stride * ALL;
  const heap = new KernelHeap(13 * places + LISTED * stride + 16 * (FALLOFF_STEPS + MOST_WHOLE + stride) + 64 * STRIP);
  const strip = {
    heap,
    width,
    stride,
    steps: heap.reserve(8 * places),
    left: heap.reserve(4 * places),
    touched: heap.reserve(STRIP * stride),
    ends: heap.i32(heap.reserve(8 * STRIP), 2 * STRIP),
    table: heap.reserve(8 * (FALLOFF_STEPS + 1)),
    powers: heap.reserve(8 * MOST_WHOLE),
    values: heap.reserve(4 * stride),
    finer: heap.reserve(4 * stride),
    lines: heap.reserve(16 * PLACES),
    list: heap.reserve(LISTED * stride),
  };
  heap.f32(strip.left, places).fill(1);
  for (let k = 0; k < STRIP; k++) clearEnds(strip, k);
  return (kept = strip);
}

function clearEnds({ ends, stride }: Strip, k: number): void {
  ends[2 * k] = stride;
  ends[2 * k + 1] = -1;
}

/** Adds what a dab leaves of the places of some rows. */
function addDab(strip: Strip, dab: PixelDab, hardness: number, one: number, row: number, rows: number): void {
  const { left, right, up, down } = dab.frame;
  // In places, counted from the middle of the strip's first.
  const [x, y, reach] = [PLACES * (dab.x + 0.5) - 0.5, PLACES * (dab.y + 0.5 - row) - 0.5, PLACES * dab.reach];
  // One that ends within a place ends over its width.
  const isStep = (1 - hardness) * reach < 1;
  const edge = ((1 + hardness) * reach) / 2;
  const [full, all] = isStep ? [edge - 0.5, edge + 0.5] : [hardness * reach, reach];
  const first = Math.max(Math.ceil(y - all / up), 0);
  const last = Math.min(Math.floor(y + all / down), PLACES * rows - 1);
  if (first > last) return;
  const { heap, ends, stride, width } = strip;
  const end = PLACES * width - 1;
  const falloff = [full, all, edge, Number(isStep), dab.flow, logLeft(dab.flow) / one, strip.table] as const;
  const place = [stride, end, first, last, x, y, left, right, up, down] as const;
  heap.run.dabLines(strip.steps, strip.left, strip.touched, ends.byteOffset, ...place, ...falloff);
}

/** Lays what was gathered for one row of pixels, and clears it. */
function layRow(strip: Strip, plane: StrokePlane, one: number, goal: number, row: number, k: number): void {
  const { heap, ends, width } = strip;
  const [first, last] = [ends[2 * k]!, ends[2 * k + 1]!];
  if (first > last) return;
  clearEnds(strip, k);
  const pixel = k * strip.stride + first;
  const inside = Math.min(last + 1, width) - first;
  const at = row * width + first;
  const values = heap.f32(strip.values, inside);
  values.set(plane.plane.subarray(at, at + inside));
  if (plane.finer) heap.i32(strip.finer, inside).set(plane.finer.subarray(at, at + inside));
  const gathered = [strip.steps + 8 * ALL * pixel, strip.left + 4 * ALL * pixel, strip.touched + pixel, last + 1 - first, inside] as const;
  const goals = [strip.values, plane.finer ? strip.finer : 0, goal, one, strip.powers] as const;
  const count = heap.run.dabRow(...gathered, ...goals, strip.lines, strip.list);
  plane.plane.set(values, at);
  const list = heap.f64(strip.list, (ALL + 1) * count);
  for (let i = 0; i < list.length; i += ALL + 1) plane.layPlaces(at + list[i]!, goal, list, i + 1);
}

/** Dabs of no flow at all are counted too. */
const LEAST_LOG = -1e-12;

function logLeft(flow: number): number {
  return Math.log(Math.max(1 - flow, NOTHING));
}
