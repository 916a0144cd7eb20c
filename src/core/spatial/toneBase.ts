import { areaReduceRows, areaReduceSquares, fitLongEdge, type Size } from "./areaReduce";
import { gaussianBlur } from "./gaussianBlur";

/** How the tone of a place's surroundings is gathered. */
export interface Spread {
  /** Standard deviation of the blur, as a part of the long edge. */
  radius: number;
  /** Whether it stops at edges of the picture. */
  edges: boolean;
}

/**
 * The tone of every place's surroundings, held small: slope · tone + offset, both read between the
 * middles of its cells. It is laid over a picture of any size.
 */
export interface ToneBase extends Size {
  /** Where its cells are square rather than even parts of the picture: how many go on the long edge. */
  perLongEdge?: number;
  /** Absent where the surroundings do not depend on the place's own tone. */
  slope: Float32Array | undefined;
  offset: Float32Array;
}

/** Standard deviation of the blur in cells: fine enough that reading between cells errs by a fifth of a per cent of a step. */
const CELLS_IN_RADIUS = 5;
/** Contrast at which edges begin to hold, in tone: one zone. */
const EDGE_TONE = 0.1;
/** Variance that averaging over a cell, and reading between cells, add to the blur, in cells². */
const CELL_VARIANCE = 1 / 12 + 1 / 6;

/**
 * Gathers the surroundings of a whole picture.
 *
 * Shape   tone of `size`, row after row, 0–1.
 * Source  docs/decisions/0007-contrast-mask.md; edges: He, Sun & Tang, "Guided image filtering" (2013) with the
 *         picture as its own guide, its window a Gaussian, coefficients kept small as in He & Sun, "Fast guided filter" (2015).
 */
export function toneBase(tone: Float32Array, size: Size, { radius, edges }: Spread): ToneBase {
  const longEdge = Math.max(size.width, size.height);
  const small = fitLongEdge(size, Math.ceil(CELLS_IN_RADIUS / radius));
  const isReduced = small.width < size.width || small.height < size.height;
  const cells = radius * Math.max(small.width, small.height);
  const sigma = isReduced ? Math.sqrt(Math.max(cells * cells - CELL_VARIANCE, 0)) : radius * longEdge;
  const blur = (plane: Float32Array) => gaussianBlur(plane, small, sigma);
  const mean = blur(isReduced ? areaReduceRows(tone, 0, size, small, 0, small.height) : tone);
  if (!edges) return { ...small, slope: undefined, offset: mean };
  // The squares are averaged at full size, so that texture finer than a cell counts as contrast too.
  const slope = blur(areaReduceSquares(tone, size, small));
  for (let i = 0; i < slope.length; i++) {
    const variance = Math.max(slope[i]! - mean[i]! * mean[i]!, 0);
    slope[i] = variance / (variance + EDGE_TONE * EDGE_TONE);
    mean[i] = (1 - slope[i]!) * mean[i]!;
  }
  return { ...small, slope: blur(slope), offset: blur(mean) };
}
