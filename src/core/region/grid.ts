import type { Size } from "../spatial/areaReduce";

/**
 * A rectangle of pixels of a picture at some size, on which shapes are laid out: pixel (i, j) has its middle
 * at ((x + i + ½) ∕ scale, (y + j + ½) ∕ scale) in long edges.
 */
export interface Grid extends Size {
  x: number;
  y: number;
  /** Pixels to the long edge of the whole picture at this size. */
  scale: number;
}

/** All of a picture. */
export function wholeGrid(size: Size): Grid {
  return { ...size, x: 0, y: 0, scale: Math.max(size.width, size.height) };
}
