import type { Size } from "./areaReduce";

/**
 * A rectangle of pixels of a picture at some size, on which shapes are laid out: pixel (i, j) has its middle
 * at ((x + i + ½) ∕ scale, (y + j + ½) ∕ scale) in long edges.
 */
export interface Grid extends Size {
  x: number;
  y: number;
  /** The whole picture at this size, and the pixels of its long edge. */
  whole: Size;
  scale: number;
  /** How far what is laid out was moved since it was placed, in long edges, where `x` and `y` have taken that into account. */
  moved?: { x: number; y: number };
}

/** A part of a picture of size `whole`, from (x, y) on. */
export function gridOf({ width, height }: Size, x: number, y: number, whole: Size): Grid {
  return { width, height, x, y, whole, scale: Math.max(whole.width, whole.height) };
}

/** All of a picture. */
export function wholeGrid(size: Size): Grid {
  return gridOf(size, 0, 0, size);
}
