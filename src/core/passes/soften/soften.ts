import { toneToLuminance } from "../../colour/lstar";
import type { Length, Stops, Tone } from "../../units";

/** How the print is softened. */
export interface SoftenSettings {
  /** Standard deviation of the blur, in long edges. */
  radius: Length;
  /** Whether all of it melts into what is around, or lights spread over what is beside them and darks stay. */
  spreads: "all" | "lights";
}

export const LEAST_SOFTEN_RADIUS = 0.002;
export const MOST_SOFTEN_RADIUS = 0.1;

/** Light as a part of white below which there are no more stops. */
const LEAST_LIGHT = 1e-4;

/** A tone on the scale along which stops shift it: log2(Y ∕ (1 − Y)). */
export function stopsOfTone(tone: Tone): Stops {
  const y = Math.min(Math.max(toneToLuminance(tone), LEAST_LIGHT), 1 - LEAST_LIGHT);
  return Math.log2(y / (1 - y));
}
