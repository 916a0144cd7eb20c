import type { Size } from "./areaReduce";

/** Times a plane goes through the box: two make a tent, near enough to a Gaussian where no shape is looked at. */
export const BOX_ROUNDS = 2;

/**
 * A plane blurred with a window of about a Gaussian's size, at a cost that does not grow with it. Beyond the frame there is
 * nothing: a level plane stays level to its edge.
 *
 * Shape   width × height in and out, row after row; the input is not changed. Units: sigma in pixels, to the nearest whole box.
 */
export function boxBlur(plane: Float32Array, { width, height }: Size, sigma: number): Float32Array {
  const reach = boxReach(sigma);
  if (reach < 1) return plane.slice();
  const out = new Float32Array(plane.length);
  if (scratch.length < plane.length) scratch = new Float32Array(plane.length);
  const [acrossShares, downShares] = [sharesInside(width, reach), sharesInside(height, reach)];
  for (let round = 0; round < BOX_ROUNDS; round++) {
    const before = round === 0 ? plane : out;
    for (let y = 0; y < height; y++) boxRow(before, scratch, y * width, acrossShares, reach);
    boxColumns(scratch, out, width, downShares, reach);
  }
  return out;
}

/** Kept from blur to blur: fresh memory costs more than the sums. */
let scratch = new Float32Array(0);

function boxRow(before: Float32Array, out: Float32Array, at: number, shares: Float64Array, reach: number): void {
  const length = shares.length;
  let sum = 0;
  for (let i = 0; i < Math.min(reach, length); i++) sum += before[at + i]!;
  for (let i = 0; i < length; i++) {
    if (i + reach < length) sum += before[at + i + reach]!;
    if (i > reach) sum -= before[at + i - reach - 1]!;
    out[at + i] = sum * shares[i]!;
  }
}

/** All columns together, a row at a time: memory is read in its order. */
function boxColumns(before: Float32Array, out: Float32Array, width: number, shares: Float64Array, reach: number): void {
  const height = shares.length;
  const sums = new Float64Array(width);
  for (let y = 0; y < Math.min(reach, height); y++) addRow(sums, before, y * width, 1);
  for (let y = 0; y < height; y++) {
    if (y + reach < height) addRow(sums, before, (y + reach) * width, 1);
    if (y > reach) addRow(sums, before, (y - reach - 1) * width, -1);
    const share = shares[y]!;
    for (let x = 0, at = y * width; x < width; x++, at++) out[at] = sums[x]! * share;
  }
}

function addRow(sums: Float64Array, plane: Float32Array, at: number, sign: number): void {
  for (let x = 0; x < sums.length; x++) sums[x] = sums[x]! + sign * plane[at + x]!;
}

/** Pixels to either side in a box whose rounds have a standard deviation together, in pixels: the variance of BOX_ROUNDS boxes of 2r + 1 is BOX_ROUNDS · ((2r + 1)² − 1) ∕ 12. */
export function boxReach(sigma: number): number {
  return Math.round((Math.sqrt((12 * sigma * sigma) / BOX_ROUNDS + 1) - 1) / 2);
}

/** One over how many places of the box around each lie within the frame. */
export function sharesInside(length: number, reach: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 1 / (Math.min(i + reach, length - 1) - Math.max(i - reach, 0) + 1));
}
