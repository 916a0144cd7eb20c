import { smoothStep } from "../../curves/smoothStep";
import type { Length, Tone } from "../../units";

/** How what differs from its surroundings is raised. */
export interface SharpenSettings {
  /** Standard deviation of the surroundings, in long edges. */
  radius: Length;
  /** What is added of the difference, in times of it. */
  amount: number;
  /** Differences below are left: noise, grain. Units: tone. */
  threshold: Tone;
  /** How much lighter and darker than it was a place may become at the most. Units: tone. */
  lighter: Tone;
  darker: Tone;
}

export const LEAST_SHARPEN_RADIUS = 0.00002;
/** Wider is relief's affair; and an export works out as many rows beyond each band as this reaches. */
export const MOST_SHARPEN_RADIUS = 0.0015;
export const MOST_AMOUNT = 4;
export const MOST_THRESHOLD = 0.1;
export const MOST_OVERSHOOT = 0.3;

/** Around the threshold differences come in smoothly, from this part of it to this many times. */
const COMES_IN = [0.5, 1.5] as const;

/**
 * What is added to a tone that differs by so much from the mean around it: an unsharp mask that leaves what is below the threshold, and
 * bends so that what it adds never reaches the most it may on either side.
 *
 * Units   tone.
 */
export function sharpened(difference: Tone, { amount, threshold, lighter, darker }: Omit<SharpenSettings, "radius">): number {
  const size = Math.abs(difference);
  const [from, to] = [COMES_IN[0] * threshold, COMES_IN[1] * threshold];
  const share = size >= to ? 1 : size <= from ? 0 : smoothStep((size - from) / (to - from));
  const most = difference > 0 ? lighter : darker;
  const wanted = amount * share * size;
  return most > 0 ? (Math.sign(difference) * wanted) / (1 + wanted / most) : 0;
}
