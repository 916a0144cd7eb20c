import { multiply3, type Matrix3, type Vector3, apply3 } from "./matrix3";
import { P3_TO_XYZ } from "./primaries";

/** XYZ (D65) to cone responses. Source: Ottosson, "A perceptual color space for image processing" (2020). */
const XYZ_TO_LMS: Matrix3 = [
  0.8189330101, 0.3618667424, -0.1288597137,
  0.0329845436, 0.9293118715, 0.0361456387,
  0.0482003018, 0.2643662691, 0.633851707,
];

/** Linear Display P3 to OKLab's cone responses; rows divided by their sums so that P3 white is exactly 1, 1, 1. */
export const P3_TO_LMS: Matrix3 = normaliseRows(multiply3(XYZ_TO_LMS, P3_TO_XYZ));

/** Cube-rooted cone responses to L, a, b. Same source. */
export const LMS_TO_LAB: Matrix3 = [
  0.2104542553, 0.793617785, -0.0040720468,
  1.9779984951, -2.428592205, 0.4505937099,
  0.0259040371, 0.7827717662, -0.8086757660,
];

function normaliseRows(m: Matrix3): Matrix3 {
  const sum = apply3(m, [1, 1, 1]);
  return m.map((cell, i) => cell / sum[Math.floor(i / 3)]!) as unknown as Matrix3;
}

/** OKLab of a linear Display P3 colour. Units: 0–1 in; L 0–1, a and b about ±0.4 out. */
export function linearP3ToOklab(rgb: Vector3): Vector3 {
  const [l, m, s] = apply3(P3_TO_LMS, rgb);
  return apply3(LMS_TO_LAB, [Math.cbrt(l), Math.cbrt(m), Math.cbrt(s)]);
}

/** OKLab of whole planes of linear Display P3 colour; a loop without an array for each pixel. Units as above. */
export function oklabPlanes(red: Float32Array, green: Float32Array, blue: Float32Array): Record<"lightness" | "a" | "b", Float32Array> {
  const planes = { lightness: new Float32Array(red.length), a: new Float32Array(red.length), b: new Float32Array(red.length) };
  const [m, t] = [P3_TO_LMS, LMS_TO_LAB];
  for (let i = 0; i < red.length; i++) {
    const r = red[i]!;
    const g = green[i]!;
    const b = blue[i]!;
    const long = Math.cbrt(m[0] * r + m[1] * g + m[2] * b);
    const middle = Math.cbrt(m[3] * r + m[4] * g + m[5] * b);
    const short = Math.cbrt(m[6] * r + m[7] * g + m[8] * b);
    planes.lightness[i] = t[0] * long + t[1] * middle + t[2] * short;
    planes.a[i] = t[3] * long + t[4] * middle + t[5] * short;
    planes.b[i] = t[6] * long + t[7] * middle + t[8] * short;
  }
  return planes;
}

/** Lightness 0–1, chroma, and hue in degrees 0–360 of an OKLab colour. */
export function oklabToLch([L, a, b]: Vector3): { lightness: number; chroma: number; hueDeg: number } {
  const hueDeg = (Math.atan2(b, a) * 180) / Math.PI;
  return { lightness: L, chroma: Math.hypot(a, b), hueDeg: hueDeg < 0 ? hueDeg + 360 : hueDeg };
}
