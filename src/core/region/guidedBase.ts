import { smoothStep } from "../curves/smoothStep";
import type { Size } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";
import { productOf } from "../spatial/products";
import type { ToneBase } from "../spatial/toneBase";

/** Contrast at which a plane begins to follow the guide's edges, in tone: a fifth of a zone. */
const EDGE_TONE = 0.02;

/** Contrast at which an edge is one to be followed rather than texture. */
const STRONG_EDGE_TONE = 0.05;

/** What the guided filter knows of a place: how the plane goes with the tone around it, and how much the tone varies there. */
interface Guided {
  slope: Float32Array;
  offset: Float32Array;
  variance: Float32Array;
}

function guide(plane: Float32Array, tone: Float32Array, size: Size, sigma: number): Guided {
  const blur = (values: Float32Array) => boxBlur(values, size, sigma);
  const meanTone = blur(tone);
  const meanPlane = blur(plane);
  const slope = blur(productOf(plane, tone));
  const variance = blur(productOf(tone, tone));
  for (let i = 0; i < slope.length; i++) {
    variance[i] = Math.max(variance[i]! - meanTone[i]! * meanTone[i]!, 0);
    slope[i] = (slope[i]! - meanTone[i]! * meanPlane[i]!) / (variance[i]! + EDGE_TONE * EDGE_TONE);
    meanPlane[i] = meanPlane[i]! - slope[i]! * meanTone[i]!;
  }
  return { slope: blur(slope), offset: blur(meanPlane), variance };
}

/**
 * A plane brought to the edges of a tone, as slope · tone + offset held small, so that it can be laid over the picture at any
 * size and follows there edges finer than its own cells.
 *
 * Shape   plane and tone of `size`. Units: sigma in pixels, the reach of the fit.
 * Source  He, Sun & Tang, "Guided image filtering" (2013), its surroundings two boxes; coefficients kept small: He & Sun,
 *         "Fast guided filter" (2015).
 */
export function guidedBase(plane: Float32Array, tone: Float32Array, size: Size, sigma: number): ToneBase {
  const { slope, offset } = guide(plane, tone, size, sigma);
  return { width: size.width, height: size.height, slope, offset };
}

/**
 * The same for an edge that was drawn beside the picture's: a guided filter keeps the mean, so that what was drawn wrongly is spread
 * thin on both sides of the edge. Beside strong edges it is pushed to the side it is nearer to, and guided once more.
 *
 * Source  our own: docs/decisions/0008-regions.md.
 */
export function fittedBase(plane: Float32Array, tone: Float32Array, size: Size, sigma: number): ToneBase {
  const { slope, offset, variance } = guide(plane, tone, size, sigma);
  for (let i = 0; i < slope.length; i++) {
    const share = Math.min(Math.max(slope[i]! * tone[i]! + offset[i]!, 0), 1);
    const edge = variance[i]! / (variance[i]! + STRONG_EDGE_TONE * STRONG_EDGE_TONE);
    slope[i] = share + edge * (smoothStep((share - PUSH_FROM) / (1 - 2 * PUSH_FROM)) - share);
  }
  return guidedBase(slope, tone, size, sigma / 2);
}

/** Shares below this beside an edge become none, above as much below all become all. */
const PUSH_FROM = 0.3;
