import { LAST_ZONE } from "../../zones/zone";
import type { Zone } from "../../units";

/** One tie of a placement: the tone that falls at `from` is placed at `to`. Units: zones 0–10, any real. */
export interface Strand {
  from: Zone;
  to: Zone;
}

/** The least distance of two strands in `from`, in zones: closer, a curve between them could not be told from a step. */
export const LEAST_GAP = 0.05;

/** Everything left as it falls. */
export const RESTING_STRANDS: readonly Strand[] = [
  { from: 0, to: 0 },
  { from: LAST_ZONE, to: LAST_ZONE },
];

/** A strand that places a tone just where it falls. */
export function isHold(strand: Strand): boolean {
  return strand.from === strand.to;
}

/** Adds a strand; undefined where one stands already within the least gap. Keeps the order. */
export function addStrand(strands: readonly Strand[], added: Strand): Strand[] | undefined {
  if (added.from < 0 || added.from > LAST_ZONE) return undefined;
  if (strands.some((strand) => Math.abs(strand.from - added.from) < LEAST_GAP)) return undefined;
  const joined = [...strands, added].sort((a, b) => a.from - b.from);
  return moveStrand(joined, joined.indexOf(added), added);
}

/**
 * Moves one strand; it stops at its neighbours, in `from` (least gap) and in `to` (order kept).
 *
 * Units   zones; values outside 0–10 stop at the end of the scale.
 */
export function moveStrand(strands: readonly Strand[], index: number, target: Strand): Strand[] {
  const before = strands[index - 1];
  const after = strands[index + 1];
  const moved = {
    from: between(target.from, before ? before.from + LEAST_GAP : 0, after ? after.from - LEAST_GAP : LAST_ZONE),
    to: between(target.to, before ? before.to : 0, after ? after.to : LAST_ZONE),
  };
  return strands.map((strand, i) => (i === index ? moved : strand));
}

/**
 * Moves where one strand places its tone; strands in its way are pushed along, so that order is kept.
 *
 * Units   zones; a value outside 0–10 stops at the end of the scale.
 */
export function pushStrand(strands: readonly Strand[], index: number, to: number): Strand[] {
  const reached = between(to, 0, LAST_ZONE);
  return strands.map((strand, i) => ({
    from: strand.from,
    to: i === index ? reached : i < index ? Math.min(strand.to, reached) : Math.max(strand.to, reached),
  }));
}

/**
 * Moves where several strands place their tones, all by as much; they stop together where the first of them meets a
 * strand that stays, or an end of the scale.
 *
 * Units   zones.
 */
export function moveTogether(strands: readonly Strand[], chosen: ReadonlySet<number>, by: number): Strand[] {
  const rooms = strands.map((_, i) => ({
    low: strands.findLast((_, k) => k < i && !chosen.has(k))?.to ?? 0,
    high: strands.find((_, k) => k > i && !chosen.has(k))?.to ?? LAST_ZONE,
  }));
  const met = (side: "low" | "high") => strands.flatMap(({ to }, i) => (chosen.has(i) ? [rooms[i]![side] - to] : []));
  const bounded = between(by, Math.max(...met("low")), Math.min(...met("high")));
  // Held between once more: a sum rounds, and an order lost by rounding is lost all the same.
  return strands.map(({ from, to }, i) => ({ from, to: chosen.has(i) ? between(to + bounded, rooms[i]!.low, rooms[i]!.high) : to }));
}

/** Removes a strand; a placement keeps at least two. */
export function removeStrand(strands: readonly Strand[], index: number): Strand[] {
  return strands.length <= 2 ? [...strands] : strands.filter((_, i) => i !== index);
}

function between(value: number, low: number, high: number): number {
  return Math.min(Math.max(value, low), high);
}
