import type { Size } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";
import { productOf } from "../spatial/products";
import type { ToneBase } from "../spatial/toneBase";

/** Contrast at which a plane begins to follow the guide's edges, in tone: a fifth of a zone. */
const EDGE_TONE = 0.02;

/**
 * A plane brought to the edges of a tone, as slope · tone + offset held small, so that it can be laid over the picture at any
 * size and follows there edges finer than its own cells.
 *
 * Shape   plane and tone of `size`. Units: sigma in pixels, the reach of the fit.
 * Source  He, Sun & Tang, "Guided image filtering" (2013), its window two boxes; coefficients kept small: He & Sun,
 *         "Fast guided filter" (2015).
 */
export function guidedBase(plane: Float32Array, tone: Float32Array, size: Size, sigma: number): ToneBase {
  const blur = (values: Float32Array) => boxBlur(values, size, sigma);
  const meanTone = blur(tone);
  const meanPlane = blur(plane);
  const products = blur(productOf(plane, tone));
  const squares = blur(productOf(tone, tone));
  const slope = new Float32Array(plane.length);
  const offset = new Float32Array(plane.length);
  for (let i = 0; i < plane.length; i++) {
    const variance = Math.max(squares[i]! - meanTone[i]! * meanTone[i]!, 0);
    slope[i] = (products[i]! - meanTone[i]! * meanPlane[i]!) / (variance + EDGE_TONE * EDGE_TONE);
    offset[i] = meanPlane[i]! - slope[i]! * meanTone[i]!;
  }
  return { width: size.width, height: size.height, slope: blur(slope), offset: blur(offset) };
}
