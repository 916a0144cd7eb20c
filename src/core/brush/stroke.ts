import { CoreError } from "../errors";
import type { Length } from "../units";

/** What the pen's pressure changes. */
export const PRESSURES = ["none", "flow", "size", "both"] as const;
export type Pressure = (typeof PRESSURES)[number];

/** How a brush lays on. */
export interface Brush {
  /** Where it ends, as a part of the picture's long edge. */
  radius: Length;
  /** The part of the radius within which it acts fully, 0–1; from there it fades out smoothly. */
  hardness: number;
  /** How far each dab goes towards the goal, 0–1. */
  flow: number;
  pressure: Pressure;
}

/** One movement of the brush. */
export interface Stroke extends Brush {
  /** Takes away what other strokes laid. */
  erase: boolean;
  /** Where it went: see packPath. */
  path: string;
}

/** A place on a stroke's way. Units: x and y in long edges of the picture, from its upper left corner; pressure 0–1. */
export interface PathPoint {
  x: Length;
  y: Length;
  pressure: number;
}

/** Most points of one stroke; a longer movement goes on in another. */
export const MOST_PATH_POINTS = 4000;
const BYTES = 6;
/** Strokes may leave the picture by half its long edge. */
const LEAST = -0.5;
const SPAN = 2;
const STEPS = 65535;

/**
 * A way as text, so that a plan with thousands of strokes is copied, compared and kept at little cost: for each point x, y and
 * pressure as unsigned 16-bit numbers, little-endian, in base64. x and y count −½ to 1½ long edges, pressure 0 to 1.
 * Points beyond are brought to the border; what is no number becomes 0 there, full pressure here.
 */
export function packPath(points: readonly PathPoint[]): string {
  const bytes = new DataView(new ArrayBuffer(BYTES * points.length));
  points.forEach(({ x, y, pressure }, i) => {
    bytes.setUint16(BYTES * i, stepOf((finiteOr(x, 0) - LEAST) / SPAN), true);
    bytes.setUint16(BYTES * i + 2, stepOf((finiteOr(y, 0) - LEAST) / SPAN), true);
    bytes.setUint16(BYTES * i + 4, stepOf(finiteOr(pressure, 1)), true);
  });
  return btoa(String.fromCharCode(...new Uint8Array(bytes.buffer)));
}

/** The way of packPath, as three numbers a point. Errors: CoreError `bad_path`. */
export function unpackPath(path: string): Float64Array {
  const text = atob(path);
  if (text.length === 0 || text.length % BYTES !== 0) throw new CoreError("bad_path", "a path holds 6 bytes for each of its points");
  const out = new Float64Array(text.length / 2);
  for (let i = 0; i < out.length; i++) {
    const value = (text.charCodeAt(2 * i) | (text.charCodeAt(2 * i + 1) << 8)) / STEPS;
    out[i] = i % 3 === 2 ? value : LEAST + SPAN * value;
  }
  return out;
}

function stepOf(part: number): number {
  return Math.round(Math.min(Math.max(part, 0), 1) * STEPS);
}

function finiteOr(value: number, other: number): number {
  return Number.isFinite(value) ? value : other;
}
