import type { Size } from "./areaReduce";

/** Where the kernel ends, in standard deviations: beyond lies less than 0.05 %. */
const REACH = 3.5;

/**
 * A plane blurred with a Gaussian. Beyond the frame there is nothing: weights that fall there go to what is inside,
 * so that a level plane stays level to its edge.
 *
 * Shape   width × height in and out, row after row; the input is not changed.
 * Units   sigma in pixels; 0 gives a copy.
 * Cost    2 · (7 sigma + 1) products a pixel: meant for small planes.
 */
export function gaussianBlur(plane: Float32Array, size: Size, sigma: number): Float32Array {
  if (sigma <= 0) return plane.slice();
  const { width, height } = size;
  const weights = gaussianWeights(sigma);
  const along = new Float32Array(plane.length);
  const out = new Float32Array(plane.length);
  const columnSums = sumsInside(weights, width);
  for (let y = 0; y < height; y++) blurRow(plane, along, y * width, width, weights, columnSums);
  const rowSums = sumsInside(weights, height);
  const reach = weights.length - 1;
  for (let y = 0; y < height; y++) {
    const at = y * width;
    for (let k = Math.max(-reach, -y); k <= Math.min(reach, height - 1 - y); k++) {
      const weight = weights[Math.abs(k)]! / rowSums[y]!;
      const from = at + k * width;
      for (let x = 0; x < width; x++) out[at + x] = out[at + x]! + weight * along[from + x]!;
    }
  }
  return out;
}

/** Half of a Gaussian, from its middle outwards; the whole sums to 1. */
function gaussianWeights(sigma: number): Float64Array {
  const half = Float64Array.from({ length: Math.max(1, Math.ceil(REACH * sigma)) + 1 }, (_, k) => Math.exp((-k * k) / (2 * sigma * sigma)));
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

function blurRow(plane: Float32Array, out: Float32Array, at: number, width: number, weights: Float64Array, sums: Float64Array): void {
  const reach = weights.length - 1;
  for (let x = 0; x < width; x++) {
    let sum = weights[0]! * plane[at + x]!;
    const most = Math.min(reach, Math.max(x, width - 1 - x));
    const inside = Math.min(x, width - 1 - x, most);
    for (let k = 1; k <= inside; k++) sum += weights[k]! * (plane[at + x - k]! + plane[at + x + k]!);
    for (let k = inside + 1; k <= most; k++) sum += weights[k]! * (x >= k ? plane[at + x - k]! : plane[at + x + k]!);
    out[at + x] = sum / sums[x]!;
  }
}
