/**
 * Row y of an 8×8 ordered dither, in levels: offsets of −½…½ that repeat along x and y and average
 * to 0, so that rounding to 8 bits keeps the mean tone.
 * Source  Bayer, "An optimum method for two-level rendition of continuous-tone pictures" (1973).
 */
export function ditherRow(y: number): Float32Array {
  return ROWS[y & 7]!;
}

/** No dither: steps stay flat. */
export const NO_DITHER = new Float32Array(8);

const ROWS = Array.from({ length: 8 }, (_, y) => Float32Array.from({ length: 8 }, (_, x) => (bayer(x, y) + 0.5) / 64 - 0.5));

/** Rank 0–63 of a cell: the bits of x ⊕ y and y, interleaved from the lowest up. */
function bayer(x: number, y: number): number {
  let rank = 0;
  for (let bit = 0; bit < 3; bit++) {
    rank |= (((x ^ y) >> bit) & 1) << (5 - 2 * bit);
    rank |= ((y >> bit) & 1) << (4 - 2 * bit);
  }
  return rank;
}
