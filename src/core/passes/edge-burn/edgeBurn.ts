import type { BorderStops } from "../../steps/placedStops";
import { printAtPicture, unroundedPlacing, isWholeFrame, WHOLE_FRAME, type Frame, type Placing } from "../../frame/frame";
import type { Grid } from "../../spatial/grid";

/** The print's borders darker, or lighter, towards the corners. */
export interface EdgeBurnSettings extends BorderStops {
  /** Whether bare paper takes tone too; otherwise it stays bare, as in dodging and burning by hand. */
  onPaper: boolean;
}

export const MOST_BEGINS = 0.95;
/** How far the middle may lie from the print's, in its long edges. */
export const MOST_SHIFT = 0.5;
/** The middle stays this far inside the print, as a part of its width or height. */
const LEAST_SIDE = 0.02;

/**
 * How far an edge burn acts on each pixel, 0 at its middle to 1 in the corners: a smooth step of the distance from the middle,
 * which counts 0 there and 1 at each border, whatever the print's shape, and on beyond it. Oval and straight borders are weighed together.
 *
 * Shape   a value for each pixel of the grid.
 */
export function edgeShare(settings: EdgeShape, grid: Grid, frame: Frame = WHOLE_FRAME): Float32Array {
  return isWholeFrame(frame) ? ofPicture(settings, grid) : ofPrint(settings, grid, unroundedPlacing(frame, grid.whole));
}

type EdgeShape = Omit<BorderStops, "stops">;

/** A print that is its picture: columns and rows tell for themselves. */
function ofPicture({ x, y, begins, straight }: EdgeShape, grid: Grid): Float32Array {
  const across = distances(grid.whole.width, grid.whole.width / 2 + x * grid.scale, grid.x, grid.width);
  const down = distances(grid.whole.height, grid.whole.height / 2 + y * grid.scale, grid.y, grid.height);
  const step = (distance: number) => smootherStep((distance - begins) / (1 - begins));
  const [besideX, besideY] = [across.map((u) => 1 - step(u)), down.map((v) => 1 - step(v))];
  const out = new Float32Array(grid.width * grid.height);
  for (let row = 0, i = 0; row < grid.height; row++) {
    const [v2, away] = [down[row]! ** 2, besideY[row]!];
    for (let column = 0; column < grid.width; column++, i++) {
      const oval = step(Math.sqrt((across[column]! ** 2 + v2) / 2));
      out[i] = oval + straight * (1 - besideX[column]! * away - oval);
    }
  }
  return out;
}

/** The same on a picture out of which a print is cut. */
function ofPrint({ x, y, begins, straight }: EdgeShape, grid: Grid, placing: Placing): Float32Array {
  const long = Math.max(placing.width, placing.height);
  const across = distanceAlong(placing.width, placing.width / 2 + x * long);
  const down = distanceAlong(placing.height, placing.height / 2 + y * long);
  const step = (distance: number) => smootherStep((distance - begins) / (1 - begins));
  const out = new Float32Array(grid.width * grid.height);
  for (let row = 0, i = 0; row < grid.height; row++) {
    for (let column = 0; column < grid.width; column++, i++) {
      const at = printAtPicture(placing, grid.x + column + 0.5, grid.y + row + 0.5);
      const [u, v] = [across(at.x), down(at.y)];
      const oval = step(Math.sqrt((u * u + v * v) / 2));
      out[i] = oval + straight * (1 - (1 - step(u)) * (1 - step(v)) - oval);
    }
  }
  return out;
}

/** How far each pixel of a row lies from a middle: 1 at either end of the whole row. Units: pixels. */
function distances(whole: number, middle: number, from: number, count: number): Float64Array {
  const distance = distanceAlong(whole, middle);
  return Float64Array.from({ length: count }, (_, i) => distance(from + i + 0.5));
}

/** The distance of a place from a middle, 1 at either end of the whole. */
function distanceAlong(whole: number, middle: number): (at: number) => number {
  const inside = Math.min(Math.max(middle, LEAST_SIDE * whole), (1 - LEAST_SIDE) * whole);
  return (at) => (at < inside ? (inside - at) / inside : (at - inside) / (whole - inside));
}

/**
 * 0 up to 0, 1 from 1 on, its slope and curvature 0 at both, so that no band shows where it begins. Source: Perlin, "Improving noise"
 * (2002).
 */
function smootherStep(u: number): number {
  if (u <= 0) return 0;
  return u >= 1 ? 1 : u * u * u * (u * (6 * u - 15) + 10);
}
