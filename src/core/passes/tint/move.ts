import type { Zone } from "../../units";

/** Colour laid on tones, a line of it over the zones. */
export interface TintMove {
  kind: "tint";
  /** In order of their zones, at least LEAST_TINT_GAP apart. */
  points: TintPoint[];
  /** Whether it takes the place of colour laid before it, or adds to it. */
  replaces: boolean;
}

/** The colour of a zone: hue and chroma of OKLCH. */
export interface TintPoint {
  zone: Zone;
  hueDeg: number;
  chroma: number;
}

export const MOST_TINT_POINTS = 11;
/** Units: zones. */
export const LEAST_TINT_GAP = 0.25;
export const MOST_TINT_CHROMA = 0.2;
