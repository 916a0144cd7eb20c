import type { Looks } from "../machine/pixels";
import type { StopsOf } from "../masks/stopsPlanes";
import type { Chroma } from "@/core/colour/printColour";
import { lookTable } from "@/core/view/toneTables";
import type { ShownMask } from "../masks/stageMasks";
import type { Stops, Tone } from "@/core/units";

/** How a stage is turned into pixels. */
export interface Showing extends Looks {
  /** The finished tones, the source colours instead, what the passes in hand change, on mid grey, a mask, or small things pushed. */
  of: "print" | "colour" | "change" | "mask" | "stops" | "dust";
  /** The pass whose stops are shown. */
  exposed?: StopsOf | undefined;
  /** The mask shown: white acts, black does not. */
  mask?: ShownMask | undefined;
  /** Whether full black is drawn as a line screen and bare paper as a dot screen. */
  screens: boolean;
}

/** The looks alone, without what else is shown: helpers are sent them. */
export function looksOf({ table, dithered, isSmooth, coloured, colourShare }: Looks): Looks {
  return { table, dithered, isSmooth, coloured, colourShare };
}

/** The finished print as it is, with its colours. */
export const FINISHED: Showing = {
  table: lookTable({ kind: "picture" }),
  dithered: true,
  isSmooth: true,
  coloured: "display-p3",
  of: "print",
  screens: false,
};

/** Tone histograms of HISTOGRAM_BINS. */
export interface StageHistograms {
  /** Entering and leaving the passes in hand; both leave the mix where none is. */
  entering: Uint32Array;
  leaving: Uint32Array;
  /** Histogram of the finished tones. */
  finished: Uint32Array;
}

export interface PointReading {
  /** Tones as they were mixed, entering and leaving the passes in hand, and finished. */
  mixed: Tone;
  entering: Tone;
  leaving: Tone;
  finished: Tone;
  /** Stops given to the place by the pass in hand; undefined where it gives none. */
  painted: Stops | undefined;
  /**
   * How far the place is let through by the mask of the pass in hand, as far as place and original tell it; undefined where it has none.
   */
  masked: number | undefined;
  /** Colour laid on the finished tone; undefined where no pass lays any. */
  printed: Chroma | undefined;
  /** The source colour in OKLCH. */
  chroma: number;
  hueDeg: number;
  lightness: number;
}
