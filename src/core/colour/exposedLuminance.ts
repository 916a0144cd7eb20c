import type { Light, Stops } from "../units";

/**
 * Luminance exposed: Y' = kY ∕ (1 + (k − 1)Y), k = 2^stops. `onPaper` lets less light darken bare paper too, Y' = kY, as if a grey glass
 * lay over the place: then paper white does not stay, and −stops does not undo it.
 */
export function exposedLuminance(y: Light, stops: Stops, onPaper: boolean): Light {
  const k = 2 ** stops;
  return (k * y) / (1 + (onPaper ? Math.max((k - 1) * y, 0) : (k - 1) * y));
}
