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
 * Weights of the six pixels around a place, from the third before it on, for each part of the way from one pixel to the next: those that leave all waves up to FINEST as
 * nearly as they are as six can, in least squares, among those that tell even slopes and bends exactly, so that no pattern shows in a sky.
 *
 * Shape   TURN_PHASES + 1 rows of TURN_ROW floats, the last two of each 0. Not to be changed.
 * Cost    some 70 ms the first time: a print that is not turned does not ask for them.
 * Source  our own; compared with Lanczos and cubic convolution in docs/decisions/0024-frame.md.
 */
export function turnWeights(): Float32Array {
  return (made ??= makeWeights());
}

let made: Float32Array | undefined;

function makeWeights(): Float32Array {
  const table = new Float32Array((TURN_PHASES + 1) * TURN_ROW);
  for (let phase = 0; phase <= TURN_PHASES; phase++) table.set(weightsAt(phase / TURN_PHASES), phase * TURN_ROW);
  return table;
}

function weightsAt(place: number): number[] {
  const powers = Array.from({ length: EXACT_POWERS + 1 }, (_, power) => PIXELS.map((pixel) => (pixel - place) ** power));
  const nothing = powers.map(() => 0);
  // Least squares with equalities: the normal equations, and a multiplier for each power.
  const equations = [
    ...PIXELS.map((pixel, i) => [...PIXELS.map((other) => waves(pixel - other)), ...powers.map((row) => row[i]!)]),
    ...powers.map((row) => [...row, ...nothing]),
  ];
  const wanted = [...PIXELS.map((pixel) => waves(pixel - place)), 1, ...nothing.slice(1)];
  return solve(equations, wanted).slice(0, PIXELS.length);
}

/** The mean of all waves up to FINEST, some pixels from where they are highest. */
function waves(distance: number): number {
  const turn = 2 * Math.PI * FINEST * distance;
  return turn === 0 ? 1 : Math.sin(turn) / turn;
}

/** Gauss and Jordan, with pivots. */
function solve(equations: number[][], wanted: number[]): number[] {
  const rows = equations.map((row, i) => [...row, wanted[i]!]);
  for (let i = 0; i < rows.length; i++) {
    const best = rows.reduce((most, row, k) => (k >= i && Math.abs(row[i]!) > Math.abs(rows[most]![i]!) ? k : most), i);
    [rows[i], rows[best]] = [rows[best]!, rows[i]!];
    const pivot = rows[i]!.map((value) => value / rows[i]![i]!);
    rows.forEach((row, k) => (rows[k] = k === i ? pivot : row.map((value, column) => value - row[i]! * pivot[column]!)));
  }
  return rows.map((row) => row.at(-1)!);
}
