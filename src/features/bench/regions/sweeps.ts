import type { LikenessShape, Point } from "@/core/region/region";

/** Places further apart than this, in long edges, were not touched in one sweep. */
const MOST_GAP = 0.03;

/** On which side of a likeness places were touched: of what is meant, or of what is not. */
export type Side = "touched" | "not";
export const SIDES = ["touched", "not"] as const;

/** What a hand touched in one go. */
export interface Sweep {
  side: Side;
  /** Which of its side's places: from the first to before the last. */
  from: number;
  to: number;
  places: readonly Point[];
}

/** The sweeps of a likeness, those of what is meant first: one place follows another nearby. */
export function sweepsOf(shape: Pick<LikenessShape, Side>): Sweep[] {
  return SIDES.flatMap((side) => {
    const places = shape[side];
    const begins = places.flatMap((place, i) => {
      const before = places[i - 1];
      return before && Math.hypot(place.x - before.x, place.y - before.y) <= MOST_GAP ? [] : [i];
    });
    return begins.map((from, k): Sweep => {
      const to = begins[k + 1] ?? places.length;
      return { side, from, to, places: places.slice(from, to) };
    });
  });
}

/** A likeness as if a sweep had not been. */
export function withoutSweep(shape: LikenessShape, { side, from, to }: Sweep): LikenessShape {
  return { ...shape, [side]: shape[side].toSpliced(from, to - from) };
}
