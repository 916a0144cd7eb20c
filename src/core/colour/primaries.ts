import { apply3, diagonal3, invert3, multiply3, type Matrix3, type Vector3 } from "./matrix3";

/** CIE 1931 chromaticities of D65 as sRGB states it (IEC 61966-2-1). */
const D65_XY = [0.3127, 0.329] as const;

/** The ICC profile connection space's white, D50 (ICC.1:2022, 7.2.16). */
export const D50: Vector3 = [0.9642, 1, 0.8249];

const SRGB_XY = [
  [0.64, 0.33],
  [0.3, 0.6],
  [0.15, 0.06],
] as const;
const P3_XY = [
  [0.68, 0.32],
  [0.265, 0.69],
  [0.15, 0.06],
] as const;

function xyToXyz([x, y]: readonly [number, number]): Vector3 {
  return [x / y, 1, (1 - x - y) / y];
}

/** Linear RGB to XYZ for three primaries under D65. Source: SMPTE RP 177. */
function rgbToXyz(primaries: readonly (readonly [number, number])[]): Matrix3 {
  const [r, g, b] = primaries.map(xyToXyz) as [Vector3, Vector3, Vector3];
  const columns: Matrix3 = [r[0], g[0], b[0], r[1], g[1], b[1], r[2], g[2], b[2]];
  return multiply3(columns, diagonal3(apply3(invert3(columns), xyToXyz(D65_XY))));
}

/** Linear Display P3 (D65) to CIE XYZ with Y of white = 1. */
export const P3_TO_XYZ: Matrix3 = rgbToXyz(P3_XY);
export const XYZ_TO_P3: Matrix3 = invert3(P3_TO_XYZ);

/** Linear sRGB to linear Display P3. */
export const SRGB_TO_P3: Matrix3 = multiply3(XYZ_TO_P3, rgbToXyz(SRGB_XY));

/** Weights of linear P3 R, G, B in luminance Y; they sum to 1. */
export const P3_LUMINANCE: Vector3 = [P3_TO_XYZ[3], P3_TO_XYZ[4], P3_TO_XYZ[5]];

const BRADFORD: Matrix3 = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];

/**
 * XYZ relative to one white, adapted to D65 by the Bradford transform.
 * Source: ICC.1:2022, annex E.
 */
export function adaptToD65(from: Vector3): Matrix3 {
  const source = apply3(BRADFORD, from);
  const target = apply3(BRADFORD, xyToXyz(D65_XY));
  const gain = diagonal3([target[0] / source[0], target[1] / source[1], target[2] / source[2]]);
  return multiply3(invert3(BRADFORD), multiply3(gain, BRADFORD));
}

/** The chromatic adaptation of D65 to D50 that an ICC profile states (`chad`). */
export const D65_TO_D50: Matrix3 = invert3(adaptToD65(D50));

/** ICC profile connection space (XYZ, D50) to linear Display P3. */
export const PCS_TO_P3: Matrix3 = multiply3(XYZ_TO_P3, adaptToD65(D50));
