import type { Size } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";
import type { TonePlane } from "../units";

/** What is smaller than this shows, in long edges: dust, not the shapes of things. */
const SIZE = 0.004;
const GAIN = 5;

/**
 * Tones of which only what is small is left, on mid grey and much stronger, so that dust shows. Units: `longEdge` of the whole picture in
 * pixels.
 */
export function dustLook(tones: TonePlane, size: Size, longEdge: number): TonePlane {
  const around = boxBlur(tones, size, SIZE * longEdge);
  return tones.map((tone, i) => Math.min(Math.max(0.5 + GAIN * (tone - around[i]!), 0), 1));
}
