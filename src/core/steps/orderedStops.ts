import { toneToLuminance } from "../colour/lstar";
import { heldInOrder, LEAST_STEEPNESS } from "../order/heldInOrder";
import type { Stops, Tone } from "../units";

/** What is known of the stops a pass gives by tone. Units: tone 0–1 in. */
export interface StopsByTone {
  /** How much of a place's stops reaches a tone, 0–1: gate, zones switched off, protected ends. */
  share(tone: Tone): number;
  /** Stops given by tone besides, at a mask that is full. */
  added?: ((tone: Tone) => number) | undefined;
  /** Whether less light darkens bare paper too. */
  onPaper?: boolean;
}

/** The stops that reach tones, so that their order is kept whatever is given to the place. */
export interface OrderedStops {
  /** Those given by tone besides, at each knot. */
  added: Float64Array;
  /** Those that reach each knot of a place that is given `stops`. */
  reaching(stops: Stops): Float64Array;
}

/** Black and white are infinitely far away in stops; so near to them nothing is left to be told apart. */
const NEAREST = 1e-7;

/**
 * One law for all that gives stops, painted, flat or by tone, in the open or through a mask. Exposure shifts a tone along the
 * scale of odds, log2(Y ∕ (1 − Y)), by its stops (along log2 Y where bare paper darkens too), so tones change order exactly where the stops
 * that reach them fall faster than that scale rises: there they are held.
 *
 * Shape   over `knots` + 1 even tones.
 * Source  our own: docs/decisions/0012-order.md.
 */
export function orderedStops(knots: number, { share, added, onPaper = false }: StopsByTone): OrderedStops {
  const tones = Float64Array.from({ length: knots + 1 }, (_, k) => k / knots);
  const shares = tones.map(share);
  const rising = steps(tones.map(odds));
  const falling = onPaper ? steps(tones.map(exposure)) : rising;
  const room = (step: number) => (1 - LEAST_STEEPNESS) * step;
  const free = added ? tones.map(added) : new Float64Array(tones.length);
  const byTone = added
    ? heldInOrder(
        free,
        Float64Array.from(rising, (step, i) => room(Math.min(step, falling[i]!))),
      )
    : free;
  // What is given by tone takes its part of the room.
  const left = (step: number, i: number) => room(step) + Math.min(byTone[i + 1]! - byTone[i]!, 0);
  const [upward, downward] = [rising.map(left), falling.map(left)].map((falls) => falls.map((fall) => Math.max(fall, 0)));
  return {
    added: byTone,
    reaching: (stops) =>
      heldInOrder(
        shares.map((part) => stops * part),
        stops > 0 ? upward! : downward!,
      ),
  };
}

function steps(places: Float64Array): Float64Array {
  return Float64Array.from({ length: places.length - 1 }, (_, i) => places[i + 1]! - places[i]!);
}

function odds(tone: Tone): number {
  const y = inside(toneToLuminance(tone));
  return Math.log2(y / (1 - y));
}

function exposure(tone: Tone): number {
  return Math.log2(inside(toneToLuminance(tone)));
}

function inside(y: number): number {
  return Math.min(Math.max(y, NEAREST), 1 - NEAREST);
}

/** Rows of what tones get, one for each amount of stops given to a place, from the most taken away to the most given. */
export interface StopsRows {
  /** Pair tables of `knots` + 1, one after the other. */
  tables: Float32Array;
  knots: number;
  /** Rows to either side of the one for 0. */
  side: number;
  /** Stops of the outermost rows. */
  most: number;
}

/**
 * Rows to either side: read between them, stops differ by a few hundredths from what the law gives at the most, and keep the order exactly.
 */
export const ROWS_TO_A_SIDE = 48;

/** Fewer stops than this move no tone by a step of 16 bits, in order or not. */
export const LEAST_MOST = 1e-6;

/**
 * The law as rows to be read between, for places given up to `most` stops either way; undefined where the shares alone keep the order, so
 * that one table does. A mixture of two rows keeps the order as each of them does.
 */
export function stopsRows(knots: number, byTone: StopsByTone, most: number): StopsRows | undefined {
  if (most < LEAST_MOST) return undefined;
  const { reaching } = orderedStops(knots, byTone);
  const isPlain = [-most, most].every((stops) => reaching(stops).every((reached, k) => reached === stops * byTone.share(k / knots)));
  return isPlain ? undefined : rowsOf(knots, most, reaching);
}

/** Rows for places given up to `most` stops either way, each as `row` tells it of its stops: over `knots` + 1 even tones. */
export function rowsOf(knots: number, most: number, row: (stops: Stops) => Float64Array): StopsRows {
  const length = 2 * (knots + 1);
  const tables = new Float32Array((2 * ROWS_TO_A_SIDE + 1) * length);
  for (let k = -ROWS_TO_A_SIDE; k <= ROWS_TO_A_SIDE; k++)
    writePairs(tables.subarray((k + ROWS_TO_A_SIDE) * length), row((most * k) / ROWS_TO_A_SIDE));
  return { tables, knots, side: ROWS_TO_A_SIDE, most };
}

function writePairs(table: Float32Array, values: Float64Array): void {
  values.forEach((value, k) => {
    table[2 * k] = value;
    table[2 * k + 1] = k + 1 < values.length ? values[k + 1]! - value : 0;
  });
}
