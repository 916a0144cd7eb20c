import type { Grid } from "../../region/grid";

/** The print's borders darker, or lighter, towards the corners. */
export interface EdgeBurnSettings {
  /** Stops given where it acts fully, in the corners: below 0 darkens. */
  stops: number;
  /** How far its middle lies from the picture's, in long edges. */
  x: number;
  y: number;
  /** Where it begins on the way from the middle to the border, 0–1. */
  begins: number;
  /** 0 an oval, so that corners get most; 1 straight along the borders, so that all of them get it. */
  straight: number;
  /** Whether bare paper takes tone too; otherwise it stays bare, as in dodging and burning by hand. */
  onPaper: boolean;
}

export const MOST_BEGINS = 0.95;
/** How far the middle may lie from the picture's, in long edges. */
export const MOST_SHIFT = 0.5;
/** The middle stays this far inside the picture, as a part of its width or height. */
const LEAST_SIDE = 0.02;

/** A third of a stop down, beginning a little beyond the middle. */
export function restingEdgeBurn(): EdgeBurnSettings {
  return { stops: -1 / 3, x: 0, y: 0, begins: 0.3, straight: 0.3, onPaper: true };
}

/**
 * How far an edge burn acts on each pixel, 0 at its middle to 1 in the corners: a smooth step of the distance from the middle,
 * which counts 0 there and 1 at each border, whatever the picture's shape. Oval and straight borders are weighed together.
 *
 * Shape   a value for each pixel of the grid.
 */
export function edgeShare({ x, y, begins, straight }: Omit<EdgeBurnSettings, "stops" | "onPaper">, grid: Grid): Float32Array {
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

/** How far each pixel of a row lies from a middle: 1 at either end of the whole row. Units: pixels. */
function distances(whole: number, middle: number, from: number, count: number): Float64Array {
  const inside = Math.min(Math.max(middle, LEAST_SIDE * whole), (1 - LEAST_SIDE) * whole);
  return Float64Array.from({ length: count }, (_, i) => {
    const at = from + i + 0.5;
    return at < inside ? (inside - at) / inside : (at - inside) / (whole - inside);
  });
}

/** 0 up to 0, 1 from 1 on, its slope and curvature 0 at both, so that no band shows where it begins. Source: Perlin, "Improving noise" (2002). */
function smootherStep(u: number): number {
  if (u <= 0) return 0;
  return u >= 1 ? 1 : u * u * u * (u * (6 * u - 15) + 10);
}
