import type { Size } from "./areaReduce";
import { gaussianBlur } from "./gaussianBlur";

/**
 * How far each tone lies from the mean close around it.
 *
 * Shape   tone of `size`, row after row, 0–1; out 0–1, ½ where it does not differ. Units: sigma in pixels.
 */
export function detailOf(tone: Float32Array, size: Size, sigma: number): Float32Array {
  const around = gaussianBlur(tone, size, sigma);
  for (let i = 0; i < around.length; i++) around[i] = 0.5 + 0.5 * (tone[i]! - around[i]!);
  return around;
}

/** How many pixels away something may lie and still matter to a place. */
export { gaussianReach as detailReach } from "./gaussianBlur";
