import { pairTable } from "../kernels/pairTable";

/** Distance of dabs, in radii: close enough that a stroke shows none of them. */
export const SPACING = 0.2;
export const FALLOFF_STEPS = 1024;

/** How far a dab acts at a distance from its middle: full inside the hard part, then a raised cosine. Units: distance in radii, 0–1 out. */
export function falloffAt(distance: number, hardness: number): number {
  if (distance >= 1) return 0;
  const away = hardness < 1 ? Math.max(distance - hardness, 0) / (1 - hardness) : 0;
  return 0.5 + 0.5 * Math.cos(Math.PI * away);
}

/** The same over the square of the distance, as pairs of a value and the step to the next. */
export function falloffOf(hardness: number): Float32Array {
  const known = falloffs.get(hardness);
  if (known) return known;
  if (falloffs.size >= MOST_FALLOFFS) falloffs.clear();
  const table = pairTable(FALLOFF_STEPS, (square) => falloffAt(Math.sqrt(square), hardness));
  falloffs.set(hardness, table);
  return table;
}

/** What a table of `falloffOf` tells, 0–1. Units: the square of the distance in steps of the table, 0 to FALLOFF_STEPS. */
export function shareAt(table: Float32Array, step: number): number {
  const k = step | 0;
  return table[2 * k]! + table[2 * k + 1]! * (step - k);
}

/** Thousands of strokes are of few hardnesses. */
const falloffs = new Map<number, Float32Array>();
const MOST_FALLOFFS = 64;

/** Places across a stroke, and beginnings of its row of dabs, that are looked at. */
const ACROSS = 24;
const BEGINNINGS = 3;
/** Flows are told apart to this. */
const FLOWS = 128;
const MOST_MEANS = 512;
const means = new Map<string, number>();

/**
 * How far a stroke brings what it covers towards its goal, in the mean over its width: what a row of dabs comes to where they overlap.
 *
 * Units   0–1 in and out.
 */
export function meanAcross(hardness: number, flow: number): number {
  const step = Math.round(flow * FLOWS);
  const key = `${hardness} ${step}`;
  const known = means.get(key);
  if (known !== undefined) return known;
  if (means.size >= MOST_MEANS) means.clear();
  let sum = 0;
  for (let i = 0; i < ACROSS; i++) {
    const beside = (i + 0.5) / ACROSS;
    for (let k = 0; k < BEGINNINGS; k++) {
      let left = 1;
      for (let along = -1 + (SPACING * k) / BEGINNINGS; along < 1; along += SPACING)
        left *= 1 - (step / FLOWS) * falloffAt(Math.hypot(along, beside), hardness);
      sum += 1 - left;
    }
  }
  const mean = sum / (ACROSS * BEGINNINGS);
  means.set(key, mean);
  return mean;
}
