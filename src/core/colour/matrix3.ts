/** A 3×3 matrix, row by row. */
export type Matrix3 = readonly [
  number, number, number,
  number, number, number,
  number, number, number,
];
export type Vector3 = readonly [number, number, number];

export const IDENTITY3: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** The product a·b (b is applied first). */
export function multiply3(a: Matrix3, b: Matrix3): Matrix3 {
  const cell = (row: number, column: number) =>
    a[row * 3]! * b[column]! + a[row * 3 + 1]! * b[column + 3]! + a[row * 3 + 2]! * b[column + 6]!;
  return [
    cell(0, 0), cell(0, 1), cell(0, 2),
    cell(1, 0), cell(1, 1), cell(1, 2),
    cell(2, 0), cell(2, 1), cell(2, 2),
  ];
}

/** m with rows and columns exchanged. */
export function transpose3([a, b, c, d, e, f, g, h, i]: Matrix3): Matrix3 {
  return [a, d, g, b, e, h, c, f, i];
}

/** m·v. */
export function apply3(m: Matrix3, [x, y, z]: Vector3): Vector3 {
  return [
    m[0] * x + m[1] * y + m[2] * z,
    m[3] * x + m[4] * y + m[5] * z,
    m[6] * x + m[7] * y + m[8] * z,
  ];
}

/** The inverse of m, by cofactors; m must not be singular (it is then full of infinities). */
export function invert3(m: Matrix3): Matrix3 {
  const [a, b, c, d, e, f, g, h, i] = m;
  const k = 1 / (a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g));
  return [
    k * (e * i - f * h), k * (c * h - b * i), k * (b * f - c * e),
    k * (f * g - d * i), k * (a * i - c * g), k * (c * d - a * f),
    k * (d * h - e * g), k * (b * g - a * h), k * (a * e - b * d),
  ];
}

/** A diagonal matrix. */
export function diagonal3([x, y, z]: Vector3): Matrix3 {
  return [x, 0, 0, 0, y, 0, 0, 0, z];
}
