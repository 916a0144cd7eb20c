import { luminanceToTone, toneToLuminance } from "../colour/lstar";
import { patchesOf, type Patch } from "../region/patches";
import type { Size } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";
import type { Tone } from "../units";

/** Tones are compared over this part of the long edge: three millimetres on a print of thirty centimetres. */
export const HANDWORK_SPAN = 0.01;
/** A step over that span shows on ground without any texture, in tone: two steps of L*. */
const LEAST_STEP = 0.02;
/** Tones change at least this much as the light does, so that deep shadows do not hide everything. */
const SMALL_STOPS = 0.05;
/** Smaller than this part of the picture a mark would be a speck. */
const LEAST_SHARE = 0.00005;
/** Standard deviation of a box of the span's width: what varies within the span is texture. */
const TEXTURE_SIGMA = HANDWORK_SPAN / Math.sqrt(12);

/**
 * Where handwork shows: how steeply what was laid on changes the tones, against how much the picture's own tones vary there.
 * 1 and more shows: on smooth ground a steep edge of the map is seen as an edge, over texture it hides.
 *
 * Shape   stops laid on and the tones they meet, of `size`.
 * Source  our own measure: docs/decisions/0011-seeing-handwork.md.
 */
export function handwork(stops: Float32Array, tone: Float32Array, size: Size): Float32Array {
  const { width, height } = size;
  const long = Math.max(width, height);
  const reach = Math.max(1, Math.round((HANDWORK_SPAN * long) / 2));
  const span = (HANDWORK_SPAN * long) / (2 * reach);
  const mean = boxBlur(tone, size, TEXTURE_SIGMA * long);
  const square = boxBlur(
    tone.map((t) => t * t),
    size,
    TEXTURE_SIGMA * long,
  );
  const out = new Float32Array(stops.length);
  for (let y = 0, i = 0; y < height; y++) {
    const up = Math.max(y - reach, 0) * width;
    const down = Math.min(y + reach, height - 1) * width;
    for (let x = 0; x < width; x++, i++) {
      const across = stops[y * width + Math.min(x + reach, width - 1)]! - stops[y * width + Math.max(x - reach, 0)]!;
      const along = stops[down + x]! - stops[up + x]!;
      const steep = span * Math.hypot(across, along);
      if (steep === 0) continue;
      const texture = Math.sqrt(Math.max(square[i]! - mean[i]! * mean[i]!, 0));
      out[i] = (steep * tonePerStop(mean[i]!)) / (LEAST_STEP + texture);
    }
  }
  return out;
}

/** How much a tone moves for a stop of light, where little is given. */
function tonePerStop(tone: Tone): number {
  const y = toneToLuminance(Math.min(Math.max(tone, 0), 1));
  const k = 2 ** SMALL_STOPS;
  return (luminanceToTone((k * y) / (1 + (k - 1) * y)) - luminanceToTone(y)) / SMALL_STOPS;
}

/** The places where handwork shows, the largest first. Shape: shown as `handwork` gives it. */
export function handworkPatches(shown: Float32Array, size: Size): Patch[] {
  const least = Math.max(2, LEAST_SHARE * size.width * size.height);
  return patchesOf((i) => shown[i]! >= 1, size).filter(({ cells }) => cells.length >= least);
}
