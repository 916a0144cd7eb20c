/**
 * How a stored level (0–1) stands for linear light (0–1).
 * `parametric` is the ICC type 3/4 form: y = (a·x + b)^g + e from d on, c·x + f below it.
 */
export type TransferCurve =
  | { kind: "parametric"; g: number; a: number; b: number; c: number; d: number; e: number; f: number }
  | { kind: "table"; values: readonly number[] };

/** The sRGB curve. Source: IEC 61966-2-1; Display P3 uses the same. */
export const SRGB_CURVE: TransferCurve = {
  kind: "parametric",
  g: 2.4,
  a: 1 / 1.055,
  b: 0.055 / 1.055,
  c: 1 / 12.92,
  d: 0.04045,
  e: 0,
  f: 0,
};

/** A plain power: y = x^gamma. */
export function gammaCurve(gamma: number): TransferCurve {
  return { kind: "parametric", g: gamma, a: 1, b: 0, c: 0, d: 0, e: 0, f: 0 };
}

/** Linear light for one stored level. Units: 0–1 in and out; outside, the nearer end. */
export function toLinear(curve: TransferCurve, level: number): number {
  const x = Math.min(Math.max(level, 0), 1);
  if (curve.kind === "table") {
    const at = x * (curve.values.length - 1);
    const i = Math.min(Math.floor(at), curve.values.length - 2);
    return curve.values[i]! + (curve.values[i + 1]! - curve.values[i]!) * (at - i);
  }
  const { g, a, b, c, d, e, f } = curve;
  const y = x >= d ? Math.max(a * x + b, 0) ** g + e : c * x + f;
  return Math.min(Math.max(y, 0), 1);
}

/** Tables kept: a picture has up to three curves, at two depths. */
const MOST_TABLES = 6;
const tables = new Map<string, Float32Array>();

/**
 * The curve at every level of an 8-bit (256) or 16-bit (65,536) picture. Do not write to it: equal
 * curves share one table.
 *
 * Cost  20 ms for a new 16-bit curve.
 */
export function curveTable(curve: TransferCurve, levels: 256 | 65536): Float32Array {
  const key = `${levels} ${JSON.stringify(curve)}`;
  const table = tables.get(key) ?? Float32Array.from({ length: levels }, (_, level) => toLinear(curve, level / (levels - 1)));
  tables.delete(key); // to the end of the line
  tables.set(key, table);
  for (const oldest of tables.keys()) {
    if (tables.size <= MOST_TABLES) break;
    tables.delete(oldest);
  }
  return table;
}

/** Stored sRGB level (0–1) for linear light (0–1). Source: IEC 61966-2-1. */
export function srgbEncode(linear: number): number {
  return linear <= 0.04045 / 12.92 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055;
}
