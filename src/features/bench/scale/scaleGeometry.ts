import type { Zone } from "@/core/units";

/** Room for words left of the rails, and a rail's height, in CSS pixels. */
export const LEFT = 112;
export const RAIL = 14;
/** Upper edge of the threads, and lower, in CSS pixels; handles lie this far inside, clear of the numerals. */
export const TOP = 54;
export const BOTTOM = 122;
export const HANDLE_INSET = 7;

/** Where a zone lies along the rails, in CSS pixels. */
export type X = (zone: Zone) => number;

/** The path of a thread from a place on the upper rail to one on the lower. */
export function thread(from: number, to: number): string {
  const middle = (TOP + BOTTOM) / 2;
  return `M${from.toFixed(1)},${TOP}C${from.toFixed(1)},${middle} ${to.toFixed(1)},${middle} ${to.toFixed(1)},${BOTTOM}`;
}
