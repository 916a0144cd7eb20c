import type { Vector3 } from "../colour/matrix3";
import { WEIGHT_LIMIT, type Weights } from "./weights";
import type { Stops } from "../units";

/** Channels nearer together than this, against their mean, are no colour. */
const LEAST_COLOUR = 0.02;

/**
 * Weights under which a colour is so many stops lighter, or darker, moved no farther than they must be and with their sum as it was, so
 * that neutrals stay; up to the limit of a weight. Undefined for a colour that is neutral itself.
 *
 * Units   linear Display P3, 0–1.
 */
export function pulledWeights(weights: Weights, [r, g, b]: Vector3, stops: Stops): Weights | undefined {
  const mean = (r + g + b) / 3;
  const along = [r - mean, g - mean, b - mean] as const;
  const square = along.reduce((sum, part) => sum + part * part, 0);
  if (!(square > (LEAST_COLOUR * mean) ** 2)) return undefined;
  const now = Math.max(weights.red * r + weights.green * g + weights.blue * b, LEAST_LIGHT * mean);
  const wanted = ((2 ** stops - 1) * now) / square;
  const own = [weights.red, weights.green, weights.blue] as const;
  const room = along.map((part, i) => (part === 0 ? Infinity : (Math.sign(part * wanted) * WEIGHT_LIMIT - own[i]!) / part));
  const by = Math.sign(wanted) * Math.min(Math.abs(wanted), ...room.map(Math.abs));
  return { red: own[0] + by * along[0], green: own[1] + by * along[1], blue: own[2] + by * along[2] };
}
/** A colour that a mix leaves in the dark is lightened from there, as a part of its mean. */
const LEAST_LIGHT = 0.05;
