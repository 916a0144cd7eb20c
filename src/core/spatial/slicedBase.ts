import { areaReduceRows, fitLongEdge, type Size } from "./areaReduce";
import { boxBlur } from "./boxBlur";
import { productOf } from "./products";
import { toneBase, type Spread, type ToneBase } from "./toneBase";

/**
 * The tone of every place's surroundings as far as they are like it, held small: for each of some tones, one plane above the other from black to white, the mean of
 * what lies around and is not far from that tone. It is read between cells and between tones.
 */
export interface SlicedBase extends Size {
  slices: number;
  /** slices · width · height tones. */
  planes: Float32Array;
  /** What a place is taken for where it is not its tone: that beside edges, elsewhere the mean close around it, so that texture is not taken for edges however strong. */
  guide: ToneBase | undefined;
}

/**
 * How many tones have a plane, and how many cells the standard deviation of the window has. With reading between them slices make what lies two of their steps away quite
 * another thing, and what lies within a third of one the same: fewer would let steps bleed, more would take texture for edges. Where places are told by their
 * own tones, these err by more than coarse cells do.
 */
const GRIDS = { guide: { slices: 10, cellsInRadius: 3.5 }, tone: { slices: 11, cellsInRadius: 2 } };
export const MOST_SLICES = 11;
/** How far from a place's own tone the surroundings told by it can lie: as far as the slices around it reach. */
export const SLICED_REACH = 2 / (GRIDS.tone.slices - 1);
/** Long edge of the picture that tones are gathered from, in pixels: ten to the finest window's radius. */
const GATHER_EDGE = 640;
/** Where nothing lies around that is like a tone, it stands for itself. */
const ITSELF = 1e-4;

/**
 * Gathers the surroundings of a whole picture, stopping at its edges: those of a place are what is like it, so that nothing of the other
 * side of an edge gets in, however near.
 *
 * Shape   tone of `size`, row after row, 0–1. Units: radius as a part of the long edge.
 * Source  the bilateral grid: Paris & Durand (2006), Chen, Paris & Durand (2007); compared in docs/decisions/0007-contrast-mask.md.
 */
export function slicedBase(tone: Float32Array, size: Size, radius: number, toldBy: "guide" | "tone"): SlicedBase {
  const { slices, cellsInRadius } = GRIDS[toldBy];
  const small = fitLongEdge(size, Math.ceil(cellsInRadius / radius));
  const cells = small.width * small.height;
  const middle = fitLongEdge(size, GATHER_EDGE);
  const gathered = middle.width < size.width ? areaReduceRows(tone, 0, size, middle, 0, middle.height) : tone;
  const [sums, counts] = splat(gathered, middle, small, slices);
  const planes = new Float32Array(slices * cells);
  const sigma = radius * Math.max(small.width, small.height);
  for (let k = 0; k < slices; k++) {
    const part = (plane: Float32Array) => boxBlur(plane.subarray(k * cells, (k + 1) * cells), small, sigma);
    const [sum, count] = [part(sums), part(counts)];
    const own = k / (slices - 1);
    for (let i = 0; i < cells; i++) planes[k * cells + i] = (sum[i]! + ITSELF * own) / (count[i]! + ITSELF);
  }
  return { ...small, slices, planes, guide: toldBy === "guide" ? guideOf(gathered, middle, radius) : undefined };
}

/** The guide's window, as a part of the radius, its standard deviation in cells, and the contrast at which edges begin to hold, in tone. */
const GUIDE_PART = 0.25;
const CELLS_IN_GUIDE = 2;
const EDGE_TONE = 0.04;

/** A tone brought to the mean close around it but beside edges. Texture finer than a cell has no edges. Source: He, Sun & Tang (2013), the picture as its own guide. */
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

/** Tones summed and counted in their cells, shared between the two slices they lie between. */
function splat(tone: Float32Array, { width, height }: Size, small: Size, slices: number): [Float32Array, Float32Array] {
  const cells = small.width * small.height;
  const [sums, counts] = [new Float32Array(slices * cells), new Float32Array(slices * cells)];
  const columns = Int32Array.from({ length: width }, (_, x) => Math.min(Math.floor(((x + 0.5) / width) * small.width), small.width - 1));
  // A cell may hold more pixels than its neighbour: each counts as its part of the picture.
  const share = cells / (width * height);
  for (let y = 0, i = 0; y < height; y++) {
    const row = Math.min(Math.floor(((y + 0.5) / height) * small.height), small.height - 1) * small.width;
    for (let x = 0; x < width; x++, i++) {
      const t = Math.min(Math.max(tone[i]!, 0), 1);
      const at = t * (slices - 1);
      const lower = Math.min(at | 0, slices - 2);
      const upper = (at - lower) * share;
      const cell = lower * cells + row + columns[x]!;
      counts[cell] = counts[cell]! + share - upper;
      sums[cell] = sums[cell]! + (share - upper) * t;
      counts[cell + cells] = counts[cell + cells]! + upper;
      sums[cell + cells] = sums[cell + cells]! + upper * t;
    }
  }
  return [sums, counts];
}

/** The tone of every place's surroundings, one way or the other. */
export type Surroundings = ToneBase | SlicedBase;

/** Gathers the surroundings of a whole picture. */
export function surroundingsOf(tone: Float32Array, size: Size, { radius, edges }: Spread): Surroundings {
  return edges === "none" ? toneBase(tone, size, radius) : slicedBase(tone, size, radius, edges);
}
