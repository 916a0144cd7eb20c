import { LAST_ZONE } from "../../zones/zone";
import { placementCurve } from "./placementCurve";
import { LEAST_GAP, type Strand } from "./strand";
import type { Zone } from "../../units";

/**
 * Strands by which the zone placed at `zone` can be lifted or lowered alone: one there, and one on each
 * neighbouring zone that holds it. Strands already near are taken as they are; nothing moves yet.
 *
 * Returns the strands and the index of the one to move; undefined where the placement is level there, so
 * that no single tone stands for the zone.
 */
export function liftableZone(strands: readonly Strand[], zone: Zone): { strands: Strand[]; index: number } | undefined {
  const curve = placementCurve(strands);
  const joined = [...strands];
  for (const placed of [zone - 1, zone, zone + 1]) {
    if (placed < 0 || placed > LAST_ZONE || placed < curve(0) || placed > curve(LAST_ZONE)) continue;
    const from = fallingAt(curve, placed);
    if (joined.some((strand) => Math.abs(strand.from - from) < 2 * LEAST_GAP)) continue;
    joined.push({ from, to: curve(from) });
  }
  joined.sort((a, b) => a.from - b.from);
  const wanted = fallingAt(curve, zone);
  const index = joined.findIndex((strand) => Math.abs(strand.from - wanted) < 2 * LEAST_GAP);
  return index < 0 || Math.abs(joined[index]!.to - zone) > 0.5 ? undefined : { strands: joined, index };
}

/** Where a tone falls that is placed at `placed`: the curve's inverse, by halving. */
function fallingAt(curve: (zone: Zone) => number, placed: number): number {
  let [low, high] = [0, LAST_ZONE];
  if (Math.abs(curve(placed) - placed) < 1e-9) return placed; // untouched here: exactly the zone
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    if (curve(middle) < placed) low = middle;
    else high = middle;
  }
  return high;
}
