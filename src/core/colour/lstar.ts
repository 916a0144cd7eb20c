// CIE 1976 L*, exact rational constants as in ISO/CIE 11664-4.
import type { Light, Stops, Tone } from "../units";

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/** Tone t = L*∕100 of luminance Y relative to white. Units: 0–1 both; outside, the nearer end. */
export function luminanceToTone(y: Light): Tone {
  const Y = Math.min(Math.max(y, 0), 1);
  return (Y > EPSILON ? 116 * Math.cbrt(Y) - 16 : KAPPA * Y) / 100;
}

/** Luminance Y of a tone t = L*∕100; the inverse of `luminanceToTone`. */
export function toneToLuminance(t: Tone): Light {
  const L = Math.min(Math.max(t, 0), 1) * 100;
  return L > 8 ? ((L + 16) / 116) ** 3 : L / KAPPA;
}

/** Luminance of the middle of Zone V, L* 50: where stops are counted from. */
export const ZONE_V_LUMINANCE = toneToLuminance(0.5);

/** Stops from Zone V: log2(Y ∕ Y of L* 50). −Infinity for black. */
export function toneToStops(t: Tone): Stops {
  return Math.log2(toneToLuminance(t) / ZONE_V_LUMINANCE);
}
