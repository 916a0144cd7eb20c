import type { Size } from "../spatial/areaReduce";
import { FALLOFF_STEPS, shareAt } from "./falloff";
import type { TowardsFrame } from "./towardsFrame";
import { PLACES, type StrokePlane } from "./strokePlane";

/** Rows of pixels that are reckoned at a time. */
const STRIP = 8;
const ALL = PLACES * PLACES;
/** Of a place less than this is left of what was there. */
const NOTHING = 1e-9;
/** Lines that leave as much of a place, but for this, are one. */
const EVEN = 1e-6;

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
    const powers = powersOf(this.#stroke.flow);
    for (let row = top; row <= bottom; row += STRIP) {
      const rows = Math.min(STRIP, bottom + 1 - row);
      for (const dab of this.#dabs) addDab(strip, dab, this.#stroke, powers.one, row, rows);
      for (let k = 0; k < rows; k++) layRow(strip, plane, powers, goal, row + k, k);
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

/** What dabs leave of the places of a strip of rows. Everything is as at first after a row was laid. */
interface Strip {
  width: number;
  /** Pixels from the beginning of a row to the next: one more than there are. */
  stride: number;
  /** How many dabs more act fully on a place than on the one before it: PLACES² for each pixel, line after line, all together. */
  steps: Float64Array;
  /** What is left besides, where dabs fall off. */
  left: Float32Array;
  /** Pixels in which something changes. */
  isTouched: Uint8Array;
  /** For each row the first and the last of them. */
  from: Int32Array;
  to: Int32Array;
}

let kept: Strip | undefined;

/** One strip serves all strokes: it is clean between them. */
function stripOf(width: number): Strip {
  if (kept?.width === width) return kept;
  const stride = width + 1;
  return (kept = {
    width,
    stride,
    steps: new Float64Array(STRIP * stride * ALL),
    left: new Float32Array(STRIP * stride * ALL).fill(1),
    isTouched: new Uint8Array(STRIP * stride),
    from: new Int32Array(STRIP).fill(stride),
    to: new Int32Array(STRIP).fill(-1),
  });
}

/** Where a place of a line is found. */
function placeAt(stride: number, line: number, place: number): number {
  return ALL * (((line / PLACES) | 0) * stride + ((place / PLACES) | 0)) + PLACES * (line % PLACES) + (place % PLACES);
}

/** Adds what a dab leaves of the places of some rows. */
function addDab(strip: Strip, dab: PixelDab, { hardness, table }: SharpStroke, one: number, row: number, rows: number): void {
  const { frame } = dab;
  // In places, counted from the middle of the strip's first.
  const [x, y, reach] = [PLACES * (dab.x + 0.5) - 0.5, PLACES * (dab.y + 0.5 - row) - 0.5, PLACES * dab.reach];
  // One that ends within a place ends over its width.
  const isStep = (1 - hardness) * reach < 1;
  const edge = ((1 + hardness) * reach) / 2;
  const [full, all] = isStep ? [edge - 0.5, edge + 0.5] : [hardness * reach, reach];
  const first = Math.max(Math.ceil(y - all / frame.up), 0);
  const last = Math.min(Math.floor(y + all / frame.down), PLACES * rows - 1);
  if (first > last) return;
  const end = PLACES * strip.width - 1;
  const step = logLeft(dab.flow) / one;
  const ramp: Ramp = { x, flow: dab.flow, toLeft: frame.left, toRight: frame.right, edge, isStep, all, table };
  for (let line = first; line <= last; line++) {
    const v = (line - y) * (line < y ? frame.up : frame.down);
    // Not 0: towards a border that it goes on beyond it is divided by 0.
    const outer = Math.sqrt(Math.max(all * all - v * v, Number.MIN_VALUE));
    const from = Math.max(Math.ceil(x - outer / frame.left), 0);
    const to = Math.min(Math.floor(x + outer / frame.right), end);
    if (from > to) continue;
    let [fullFrom, fullTo] = [to + 1, to];
    if (full > Math.abs(v)) {
      const inner = Math.sqrt(full * full - v * v);
      fullFrom = Math.max(Math.ceil(x - inner / frame.left), 0);
      fullTo = Math.min(Math.floor(x + inner / frame.right), end);
    }
    if (fullFrom > fullTo) weaken(strip, ramp, line, v * v, from, to);
    else {
      weaken(strip, ramp, line, v * v, from, fullFrom - 1);
      addStretch(strip, line, fullFrom, fullTo, step);
      weaken(strip, ramp, line, v * v, fullTo + 1, to);
    }
  }
}

/** How a dab falls off along a line, in places. */
interface Ramp {
  x: number;
  flow: number;
  toLeft: number;
  toRight: number;
  edge: number;
  isStep: boolean;
  all: number;
  table: Float32Array;
}

/** Weakens the places of a line, `v2` the square of its distance from the dab's middle, where the dab falls off. */
function weaken(
  strip: Strip,
  { x, flow, toLeft, toRight, edge, isStep, all, table }: Ramp,
  line: number,
  v2: number,
  from: number,
  to: number,
): void {
  if (from > to) return;
  const { left, stride } = strip;
  touch(strip, line, from, to);
  for (let k = from; k <= to; k++) {
    const u = (k - x) * (k < x ? toLeft : toRight);
    const square = u * u + v2;
    const share = isStep
      ? Math.min(Math.max(edge - Math.sqrt(square) + 0.5, 0), 1)
      : square < all * all
        ? shareAt(table, (square / (all * all)) * FALLOFF_STEPS)
        : 0;
    left[placeAt(stride, line, k)]! *= 1 - flow * share;
  }
}

function addStretch(strip: Strip, line: number, from: number, to: number, step: number): void {
  strip.steps[placeAt(strip.stride, line, from)]! += step;
  strip.steps[placeAt(strip.stride, line, to + 1)]! -= step;
  touch(strip, line, from, from);
  touch(strip, line, to + 1, to + 1);
}

/** Notes that something changes from one place of a line to another. */
function touch({ isTouched, from, to, stride }: Strip, line: number, first: number, last: number): void {
  const row = (line / PLACES) | 0;
  const [a, b] = [(first / PLACES) | 0, (last / PLACES) | 0];
  const begin = row * stride;
  for (let x = begin + a; x <= begin + b; x++) isTouched[x] = 1;
  if (a < from[row]!) from[row] = a;
  if (b > to[row]!) to[row] = b;
}

/** What is laid on each place of a pixel in which something changes, and of those after it in which nothing does. */
const shares = new Float64Array(PLACES * PLACES);
const after = new Float64Array(PLACES * PLACES);
/** Of each line how many dabs there are, and what they leave. */
const sums = new Float64Array(PLACES);
const remains = new Float64Array(PLACES);

/** Lays what was gathered for one row of pixels, and clears it. */
function layRow(strip: Strip, plane: StrokePlane, powers: Powers, goal: number, row: number, k: number): void {
  const { width, stride, isTouched } = strip;
  const { finer, plane: values } = plane;
  const [first, last] = [strip.from[k]!, strip.to[k]!];
  let share = 0;
  let isEven = true;
  let isKnown = false; // whether `after` is what it should be
  sums.fill(0);
  remains.fill(1);
  for (let x = first, at = row * width + first, pixel = k * stride + first; x <= last; x++, at++, pixel++) {
    if (isTouched[pixel] === 1) {
      isTouched[pixel] = 0;
      takePixel(strip, powers, pixel);
      if (x < width) plane.layPlaces(at, goal, shares);
      const [a, b, c, d] = [remains[0]!, remains[1]!, remains[2]!, remains[3]!];
      share = 1 - (a + b + c + d) / PLACES;
      isEven = Math.max(a, b, c, d) - Math.min(a, b, c, d) < EVEN;
      isKnown = false;
    } else if (!isEven) {
      if (!isKnown) for (let i = 0; i < after.length; i++) after[i] = 1 - remains[(i / PLACES) | 0]!;
      isKnown = true;
      plane.layPlaces(at, goal, after);
    } else if (finer?.[at]) plane.lay(at, goal, share);
    else values[at] = values[at]! + (goal - values[at]!) * share;
  }
  strip.from[k] = stride;
  strip.to[k] = -1;
}

/** Takes the places of a pixel out of what was gathered. */
function takePixel({ steps, left }: Strip, powers: Powers, pixel: number): void {
  for (let v = 0, i = 0, at = ALL * pixel; v < PLACES; v++) {
    let remain = remains[v]!;
    for (let u = 0; u < PLACES; u++, i++, at++) {
      const step = steps[at]!;
      if (step !== 0) {
        sums[v] = sums[v]! + step;
        remain = powerOf(powers, sums[v]!);
        steps[at] = 0;
      }
      shares[i] = 1 - remain * left[at]!;
      left[at] = 1;
    }
    remains[v] = remain;
  }
}

/** What is left of a place under so many dabs of the stroke's own flow; of pressed dabs as many count as leave as much. */
interface Powers {
  /** The logarithm of what one leaves. */
  one: number;
  /** What 0, 1, 2, … leave. */
  whole: Float64Array;
}
const MOST_WHOLE = 256;
/** Dabs of no flow at all are counted too. */
const LEAST_LOG = -1e-12;

function powersOf(flow: number): Powers {
  const one = Math.min(logLeft(flow), LEAST_LOG);
  return { one, whole: Float64Array.from({ length: MOST_WHOLE }, (_, count) => Math.exp(one * count)) };
}

function logLeft(flow: number): number {
  return Math.log(Math.max(1 - flow, NOTHING));
}

function powerOf({ one, whole }: Powers, count: number): number {
  const k = count | 0;
  return k === count && k >= 0 && k < MOST_WHOLE ? whole[k]! : Math.exp(one * count);
}
