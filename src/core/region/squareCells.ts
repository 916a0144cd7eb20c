import type { Size } from "../spatial/areaReduce";
import type { Grid } from "../spatial/grid";

/** Cells laid beyond each border of the picture, so that what is read at the border lies between cells as anywhere. */
const MARGIN = 3;

/**
 * Square cells over a picture and a little beyond it, so many on its long edge: a grid on which shapes and strokes are laid out once, to be
 * read at any size.
 */
export function squareCells({ width, height }: Size, perLongEdge: number): Grid {
  const scale = perLongEdge / Math.max(width, height);
  const whole = { width: width * scale, height: height * scale };
  const count = (cells: number) => Math.ceil(cells - ROUNDING) + 2 * MARGIN;
  return { x: -MARGIN, y: -MARGIN, width: count(whole.width), height: count(whole.height), whole, scale: perLongEdge };
}
const ROUNDING = 1e-9;
