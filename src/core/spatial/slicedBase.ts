import { areaReduceRows, fitLongEdge, type Size } from "./areaReduce";
import { boxBlur } from "./boxBlur";
import { productOf } from "./products";
import { slicedMeans } from "./slicedMeans";
import { toneBase, type Spread, type ToneBase } from "./toneBase";

/**
 * The tone of every place's surroundings as far as they are like it, held small: for each of some tones from black to white the mean of
 * what lies around and is not far from that tone. It is read between cells and between tones.
 */
export interface SlicedBase extends Size {
  slices: number;
  /** A cell of CELL_FLOATS tones for each of width · height places, the first of them its slices. */
  cells: Float32Array;
  /**
   * What a place is taken for where it is not its tone: that beside edges, elsewhere the mean close around it, so that texture is not taken
   * for edges however strong.
   */
  guide: ToneBase | undefined;
}

/**
 * How many tones have a slice, and how many cells the standard deviation of the window has. With reading between them slices make what lies
 * two of their steps away quite another thing, and what lies within a third of one the same: fewer would let steps bleed, more would take
 * texture for edges. Where places are told by their own tones, these err by more than coarse cells do.
 */
const GRIDS = { guide: { slices: 10, cellsInRadius: 3.5 }, tone: { slices: 11, cellsInRadius: 2 } };
/** How far from a place's own tone the surroundings told by it can lie: as far as the slices around it reach. */
export const SLICED_REACH = 2 / (GRIDS.tone.slices - 1);
/** Long edge of the picture that tones are gathered from, in pixels: ten to the finest window's radius. */
const GATHER_EDGE = 640;

/**
 * Gathers the surroundings of a whole picture, stopping at its edges: those of a place are what is like it, so that nothing of the other
 * side of an edge gets in, however near.
 *
 * Shape   tone of `size`, row after row, 0–1, of a picture that is `whole`. Units: radius as a part of the long edge.
 * Source  the bilateral grid: Paris & Durand (2006), Chen, Paris & Durand (2007); compared in docs/decisions/0007-contrast-mask.md.
 */
function slicedBase(tone: Float32Array, size: Size, whole: Size, radius: number, toldBy: "guide" | "tone"): SlicedBase {
  const { slices, cellsInRadius } = GRIDS[toldBy];
  const small = fitLongEdge(whole, Math.ceil(cellsInRadius / radius));
  const cells = slicedMeans(tone, size, small, slices, radius * Math.max(small.width, small.height));
  return { ...small, slices, cells, guide: toldBy === "guide" ? guideOf(tone, size, radius) : undefined };
}

/** The guide's window, as a part of the radius, its standard deviation in cells, and the contrast at which edges begin to hold, in tone. */
const GUIDE_PART = 0.25;
const CELLS_IN_GUIDE = 2;
const EDGE_TONE = 0.04;

/**
 * A tone brought to the mean close around it but beside edges. Texture finer than a cell has no edges. Source: He, Sun & Tang (2013), the
 * picture as its own guide.
 */
function guideOf(tone: Float32Array, size: Size, radius: number): ToneBase {
  const sigma = GUIDE_PART * radius;
  const small = fitLongEdge(size, Math.ceil(CELLS_IN_GUIDE / sigma));
  const cells = areaReduceRows(tone, 0, size, small, 0, small.height);
  const blur = (plane: Float32Array) => boxBlur(plane, small, sigma * Math.max(small.width, small.height));
  const mean = blur(cells);
  const slope = blur(productOf(cells, cells));
  for (let i = 0; i < slope.length; i++) {
    const variance = Math.max(slope[i]! - mean[i]! * mean[i]!, 0);
    slope[i] = variance / (variance + EDGE_TONE * EDGE_TONE);
    mean[i] = (1 - slope[i]!) * mean[i]!;
  }
  return { ...small, slope: blur(slope), offset: blur(mean) };
}

/** The tone of every place's surroundings, one way or the other. */
export type Surroundings = ToneBase | SlicedBase;

/** Gathers the surroundings of a whole picture in one way after the other. Shape: tone of `size`, row after row, 0–1. */
export function surroundingsOf(tone: Float32Array, size: Size): (spread: Spread) => Surroundings {
  const middle = fitLongEdge(size, GATHER_EDGE);
  let reduced: Float32Array | undefined;
  return ({ radius, edges }) => {
    if (edges === "none") return toneBase(tone, size, radius);
    reduced ??= middle.width < size.width ? areaReduceRows(tone, 0, size, middle, 0, middle.height) : tone;
    return slicedBase(reduced, middle, size, radius, edges);
  };
}
