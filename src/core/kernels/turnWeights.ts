/** Steps from one pixel to the next at which weights are known. */
export const TURN_PHASES = 1024;
/** Pixels read to each side of a place, and floats of a row of weights. */
export const TURN_REACH = 3;
export const TURN_ROW = 8;

/** Waves up to this many a pixel are to stay as they are; finer ones are at most half as strong as what a picture can hold. */
const FINEST = 0.3;
/** Tones that run evenly, or bend evenly, are told exactly: powers of the place up to this one. */
const EXACT_POWERS = 2;
const PIXELS = Array.from({ length: 2 * TURN_REACH }, (_, k) => k - (TURN_REACH - 1));

/**
 * Weights of the six pixels around a place, from the third before it on, for each part of the way from one pixel to the next: those that
 * leave all waves up to FINEST as nearly as they are as six can, in least squares, among those that tell even slopes and bends exactly, so
 * that no pattern shows in a sky.
 *
 * Shape   TURN_PHASES + 1 rows of TURN_ROW floats, the last two of each 0. Not to be changed.
 * Cost    some 30 ms the first time: a print that is not turned does not ask for them.
 * Source  our own; compared with Lanczos and cubic convolution in docs/decisions/0024-frame.md.
 */
export function turnWeights(): Float32Array {
  return (made ??= makeWeights());
}

let made: Float32Array | undefined;

function makeWeights(): Float32Array {
  const table = new Float32Array((TURN_PHASES + 1) * TURN_ROW);
  for (let phase = 0; phase <= TURN_PHASES; phase++) layWeights(phase / TURN_PHASES, table, phase * TURN_ROW);
  return table;
}

/** Unknowns: the weights, and a multiplier for each power. A row has so many numbers, and what they are to come to. */
const UNKNOWNS = PIXELS.length + EXACT_POWERS + 1;
const ROW = UNKNOWNS + 1;
const BETWEEN = PIXELS.map((pixel) => PIXELS.map((other) => waves(pixel - other)));

/** Least squares with equalities: the normal equations, and those of the powers. */
function layWeights(place: number, out: Float32Array, at: number): void {
  const rows = new Float64Array(UNKNOWNS * ROW);
  PIXELS.forEach((pixel, i) => {
    rows.set(BETWEEN[i]!, i * ROW);
    for (let power = 0; power <= EXACT_POWERS; power++) {
      const value = (pixel - place) ** power;
      rows[i * ROW + PIXELS.length + power] = value;
      rows[(PIXELS.length + power) * ROW + i] = value;
    }
    rows[i * ROW + UNKNOWNS] = waves(pixel - place);
  });
  rows[PIXELS.length * ROW + UNKNOWNS] = 1;
  solve(rows);
  for (let i = 0; i < PIXELS.length; i++) out[at + i] = rows[i * ROW + UNKNOWNS]!;
}

/** The mean of all waves up to FINEST, some pixels from where they are highest. */
function waves(distance: number): number {
  const turn = 2 * Math.PI * FINEST * distance;
  return turn === 0 ? 1 : Math.sin(turn) / turn;
}

/** Gauss and Jordan, with pivots, in place: what is wanted becomes what is sought. */
function solve(rows: Float64Array): void {
  for (let i = 0; i < UNKNOWNS; i++) {
    let best = i;
    for (let k = i + 1; k < UNKNOWNS; k++) if (Math.abs(rows[k * ROW + i]!) > Math.abs(rows[best * ROW + i]!)) best = k;
    const by = rows[best * ROW + i]!;
    for (let column = 0; column < ROW; column++) {
      const value = rows[best * ROW + column]!;
      rows[best * ROW + column] = rows[i * ROW + column]!;
      rows[i * ROW + column] = value / by;
    }
    for (let k = 0; k < UNKNOWNS; k++) {
      const times = rows[k * ROW + i]!;
      if (k !== i)
        for (let column = 0; column < ROW; column++) rows[k * ROW + column] = rows[k * ROW + column]! - times * rows[i * ROW + column]!;
    }
  }
}
