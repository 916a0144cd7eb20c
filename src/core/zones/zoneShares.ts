import { ZONE_COUNT } from "./zone";

/** Bins of a tone histogram; a multiple of 20, so that every zone border is a bin border. */
export const HISTOGRAM_BINS = 400;

/**
 * The share of the picture in each zone 0–X, from a tone histogram.
 *
 * Shape   HISTOGRAM_BINS counts in, 11 shares out; they add up to 1 (all 0 for an empty histogram).
 */
export function zoneShares(histogram: ArrayLike<number>): number[] {
  const shares = Array.from({ length: ZONE_COUNT }, () => 0);
  let total = 0;
  const binsPerHalfZone = HISTOGRAM_BINS / 20;
  for (let bin = 0; bin < HISTOGRAM_BINS; bin++) {
    const zone = Math.floor((Math.floor(bin / binsPerHalfZone) + 1) / 2);
    shares[zone] = shares[zone]! + histogram[bin]!;
    total += histogram[bin]!;
  }
  return total === 0 ? shares : shares.map((count) => count / total);
}
