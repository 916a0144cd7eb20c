import type { Chroma, OutputSpace } from "@/core/colour/printColour";
import type { Frame } from "@/core/frame/frame";
import type { PlacedStops } from "@/core/steps/step";
import type { Size } from "@/core/spatial/areaReduce";
import { lookTable } from "@/core/view/toneTables";
import type { ShownMask } from "./stageMasks";
import type { Stops, Tone } from "@/core/units";

/** How tones are turned into pixels. */
export interface Looks {
  /** Levels 0–255 over tone, or over linear light when `of` is the colour. */
  table: Float32Array;
  dithered: boolean;
  /** The space in whose channels colour laid on a print's tones is shown with them; absent where tones alone are. */
  coloured?: OutputSpace | undefined;
  /** How far it is shown, over tone 0–1; absent where it is everywhere. */
  colourShare?: Float32Array | undefined;
}

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
export function looksOf({ table, dithered, coloured, colourShare }: Looks): Looks {
  return { table, dithered, coloured, colourShare };
}

/** The finished print as it is, with its colours. */
export const FINISHED: Showing = {
  table: lookTable({ kind: "picture" }),
  dithered: true,
  coloured: "display-p3",
  of: "print",
  screens: false,
};

/** A pass that gives stops to places. */
export interface StopsOf {
  id: string;
  placed: PlacedStops;
  /** Of the print whose borders may place them. */
  frame: Frame;
}

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
  /** How far the place is let through by the mask of the pass in hand, as far as place and original tell it; undefined where it has none. */
  masked: number | undefined;
  /** Colour laid on the finished tone; undefined where no pass lays any. */
  printed: Chroma | undefined;
  /** The source colour in OKLCH. */
  chroma: number;
  hueDeg: number;
  lightness: number;
}

/** Where a source lies that is only a part of a picture: its corner, and the whole picture's size at this scale. */
export interface SourcePlace {
  x: number;
  y: number;
  whole: Size;
}

/** Hue in turns, and how far a place is coloured, 0–1. */
export interface Hues {
  hue: Float32Array;
  fade: Float32Array;
}
