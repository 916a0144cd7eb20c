import type { Size } from "./areaReduce";

/** Where the kernel ends, in standard deviations: beyond lies less than 0.05 %. */
const REACH = 3.5;
/** Narrower than this, in pixels, a pixel's neighbours get less than a millionth: there is nothing to blur. */
const LEAST_SIGMA = 0.18;

/**
 * A plane blurred with a Gaussian. Beyond the frame there is nothing: weights that fall there go to what is inside,
 * so that a level plane stays level to its edge.
 *
 * Shape   width × height in and out, row after row; the input is not changed.
 * Units   sigma in pixels; one too narrow to reach a neighbour gives a copy.
 * Cost    2 · (7 sigma + 1) products a pixel: meant for small planes.
 */
export function gaussianBlur(plane: Float32Array, { width, height }: Size, sigma: number): Float32Array {
  if (sigma < LEAST_SIGMA) return plane.slice();
  const weights = gaussianWeights(sigma);
  return blurredAcross(blurredAcross(plane, width, height, weights), height, width, weights);
}

/** A plane's rows blurred, as the columns of what comes out: the same once more blurs its columns and turns it back. */
function blurredAcross(plane: Float32Array, width: number, height: number, weights: Float64Array): Float32Array {
  const reach = weights.length - 1;
  const out = new Float32Array(plane.length);
  const sums = sumsInside(weights, width);
  const row = new Float64Array(width + 2 * reach); // nothing beyond either end
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) row[reach + x] = plane[y * width + x]!;
    for (let x = 0; x < width; x++) {
      const middle = reach + x;
      // Two sums at once: neither waits for the other.
      let near = weights[0]! * row[middle]!;
      let far = 0;
      let k = 1;
      for (; k < reach; k += 2) {
        near += weights[k]! * (row[middle - k]! + row[middle + k]!);
        far += weights[k + 1]! * (row[middle - k - 1]! + row[middle + k + 1]!);
      }
      if (k === reach) near += weights[k]! * (row[middle - k]! + row[middle + k]!);
      out[x * height + y] = (near + far) / sums[x]!;
    }
  }
  return out;
}

/** Pixels to either side that are looked at. */
export function gaussianReach(sigma: number): number {
  return sigma < LEAST_SIGMA ? 0 : Math.max(1, Math.ceil(REACH * sigma));
}

/** Half of a Gaussian, from its middle outwards; the whole sums to 1. */
function gaussianWeights(sigma: number): Float64Array {
  const half = Float64Array.from({ length: gaussianReach(sigma) + 1 }, (_, k) => Math.exp((-k * k) / (2 * sigma * sigma)));
  const sum = half.reduce((total, weight, k) => total + (k === 0 ? weight : 2 * weight), 0);
  return half.map((weight) => weight / sum);
}

/** For each place of a row, how much of the kernel lies inside it. */
function sumsInside(weights: Float64Array, count: number): Float64Array {
  const reach = weights.length - 1;
  return Float64Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let k = Math.max(-reach, -i); k <= Math.min(reach, count - 1 - i); k++) sum += weights[Math.abs(k)]!;
    return sum;
  });
}
