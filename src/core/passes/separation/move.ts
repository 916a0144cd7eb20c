/** A colour by its OKLab a and b. */
export interface Tinge {
  a: number;
  b: number;
}

/** A range of hues that is turned, and made more or less colourful. */
export interface HueRange {
  hueDeg: number;
  /** From there to nothing, to either side. Units: degrees. */
  widthDeg: number;
  turnDeg: number;
  /** Times its chroma. */
  chroma: number;
}

/** One colour drawn away from another that stays, while a third is held. */
export interface Parting {
  stays: Tinge;
  moves: Tinge;
  held: Tinge | null;
  /** How far: 1 doubles what lies between them, −1 leaves nothing of it. */
  amount: number;
}

/** Colours drawn apart, or together; light and neutrals stay. */
export interface SeparationMove {
  kind: "separation";
  /** Times all chroma. */
  saturation: number;
  ranges: HueRange[];
  parting: Parting | null;
}

export const MOST_SATURATION = 2;
export const MOST_RANGES = 6;
export const TURN_LIMIT = 60;
export const LEAST_WIDTH = 10;
export const MOST_WIDTH = 120;
export const PARTING_LIMIT = 2;
/** Colours nearer than this are one. Units: OKLab. */
export const LEAST_APART = 0.01;
