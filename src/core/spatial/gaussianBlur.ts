import { scratchHeap } from "../kernels/kernelHeap";
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
 * Cost    2 · (7 sigma + 1) products a pixel.
 */
export function gaussianBlur(plane: Float32Array, { width, height }: Size, sigma: number): Float32Array {
  if (sigma < LEAST_SIGMA) return plane.slice();
  const weights = gaussianWeights(sigma);
  const reach = weights.length - 1;
  const bytes = 4 * plane.length;
  const heap = scratchHeap(2 * bytes + 4 * (weights.length + 2 * width + height + 2 * reach) + 128);
  const [at, between] = [heap.put(plane), heap.reserve(bytes)];
  const [half, across, down] = [weights, sharesInside(weights, width), sharesInside(weights, height)].map((shares) =>
    heap.put(Float32Array.from(shares)),
  ) as [number, number, number];
  heap.run.weighRows(at, between, width, height, reach, half, across, heap.reserve(4 * (width + 2 * reach)));
  heap.run.weighColumns(between, at, width, height, reach, half, down);
  return heap.f32(at, plane.length).slice();
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

/** One over how much of the kernel lies inside, for each place of a row. */
function sharesInside(weights: Float64Array, count: number): Float64Array {
  const reach = weights.length - 1;
  return Float64Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let k = Math.max(-reach, -i); k <= Math.min(reach, count - 1 - i); k++) sum += weights[Math.abs(k)]!;
    return 1 / sum;
  });
}
