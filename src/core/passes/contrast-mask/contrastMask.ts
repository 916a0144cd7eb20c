import { toneToLuminance, ZONE_V_LUMINANCE } from "../../colour/lstar";
import type { Length } from "../../units";

/** A contrast mask: a blurred negative of the picture, laid over it. */
export interface ContrastMaskSettings {
  /** Blur of the mask: its standard deviation as a part of the picture's long edge. */
  radius: Length;
  /** Contrast of the mask over the picture's own, in stops a stop; 0 masks nothing, 1 levels all that is larger than the blur. */
  density: number;
  /** Whether the blur stops at edges of about a zone and more, so that no light seam shows along them. */
  edges: boolean;
}

export const LEAST_MASK_RADIUS = 0.01;
export const MOST_MASK_RADIUS = 0.2;

/** Stray light in the mask, as a part of white: without it black would need endless exposure. */
const FLARE = 0.005;

/**
 * Stops a mask gives to a place whose surroundings have a tone: more to what lies in shadow, less to what lies in light,
 * none around Zone V.
 *
 * Units   tone 0–1 in, stops out; falling, at most 5.3 · density either way.
 * Source  our choice, after masking with a registered negative: docs/decisions/0007-contrast-mask.md.
 */
export function contrastMaskStops(surrounding: number, density: number): number {
  return density * Math.log2((ZONE_V_LUMINANCE + FLARE) / (toneToLuminance(surrounding) + FLARE));
}
