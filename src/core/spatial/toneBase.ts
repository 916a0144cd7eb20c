import type { Grid } from "./grid";
import { areaReduceRows, fitLongEdge, type Size } from "./areaReduce";
import { gaussianBlur } from "./gaussianBlur";

/** How the tone of a place's surroundings is gathered. */
export interface Spread {
  /** Standard deviation of the blur, as a part of the long edge. */
  radius: number;
  /**
   * Whether it stops at edges of the picture, and how a place is told from what is not like it: by its own tone, or by the mean close
   * around it, so that texture is no edge.
   */
  edges: "none" | "tone" | "guide";
}

/**
 * A plane of the whole picture held small, perhaps as slope · guide + offset, each read between the middles of its cells. It is laid over
 * a picture of any size.
 */
export interface ToneBase extends Size {
  /** Where its cells are square rather than even parts of the picture: their grid. */
  square?: Pick<Grid, "x" | "y" | "scale">;
  /** Absent where it does not depend on a guide. */
  slope: Float32Array | undefined;
  /** What the guide is: how like some colours a place is; absent where it is the mixed tone. */
  likeTo?: ColourGuide | undefined;
  offset: Float32Array;
}

/** Colours in OKLab (lightness, a, b), and the distance from them from which on all are alike. */
export interface ColourGuide {
  colours: readonly (readonly [number, number, number])[];
  reach: number;
}

/** Standard deviation of the blur in cells: fine enough that reading between cells errs by a fifth of a per cent of a step. */
const CELLS_IN_RADIUS = 5;
/** The picture is reduced where it becomes this part of itself or smaller. */
const WORTH_REDUCING = 0.6;
/** Variance that averaging over a cell adds to the blur, and reading straight between places half a cell apart, in cells². */
const CELL_VARIANCE = 1 / 12 + 1 / 24;

/**
 * Gathers the surroundings of a whole picture: those of a place are the mean around it, whatever lies there.
 *
 * Shape   tone of `size`, row after row, 0–1. Units: radius, a standard deviation, as a part of the long edge.
 * Source  docs/decisions/0007-contrast-mask.md.
 */
export function toneBase(tone: Float32Array, size: Size, radius: number): ToneBase {
  const longEdge = Math.max(size.width, size.height);
  const cellsLong = Math.ceil(CELLS_IN_RADIUS / radius);
  // Cells hardly larger than pixels save nothing and have to be read between.
  const isReduced = cellsLong < WORTH_REDUCING * longEdge;
  const small = isReduced ? fitLongEdge(size, cellsLong) : size;
  const cells = radius * Math.max(small.width, small.height);
  const sigma = isReduced ? Math.sqrt(Math.max(cells * cells - CELL_VARIANCE, 0)) : radius * longEdge;
  const reduced = isReduced ? areaReduceRows(tone, 0, size, small, 0, small.height) : tone;
  const { width, height } = small;
  return { width, height, slope: undefined, offset: gaussianBlur(reduced, small, sigma) };
}
