import { layStrokes } from "../brush/layStrokes";
import type { Stroke } from "../brush/stroke";
import { contourOf, gradientAt, smoothStep } from "./contour";
import { layBase } from "../spatial/layBase";
import type { Grid } from "./grid";
import { pictureBase } from "./pictureLevels";
import type { BrushShape, GradientShape, LikenessShape, OutlineShape, OvalShape, Shape } from "./region";
import { signedDistance } from "./signedDistance";

/** A shape that its data alone lay out; a likeness needs the picture too. */
export type DrawnShape = Exclude<Shape, LikenessShape>;

/** How far a shape acts on each pixel of a grid, 0–1. */
export function rasterShape(shape: DrawnShape, grid: Grid): Float32Array {
  switch (shape.kind) {
    case "outline":
    case "oval":
      return rasterContour(shape, grid);
    case "gradient":
      return rasterGradient(shape, grid);
    case "brush":
      return rasterBrush(shape, grid);
    case "picture":
      return layBase(pictureBase(shape), grid, undefined);
  }
}

/** An edge falls off smoothly between the inner and the outer line, over one pixel at least. */
function rasterContour(shape: OutlineShape | OvalShape, grid: Grid): Float32Array {
  const width = Math.max(shape.inner + shape.outer, 1 / grid.scale);
  const outer = (shape.outer - shape.inner + width) / 2;
  const inner = outer - width;
  return signedDistance(contourOf(shape), grid, Math.max(outer, -inner) + 1 / grid.scale, (away) => {
    return away >= outer ? 0 : away <= inner ? 1 : smoothStep((outer - away) / width);
  });
}

function rasterGradient(shape: GradientShape, grid: Grid): Float32Array {
  const at = gradientAt(shape);
  const plane = new Float32Array(grid.width * grid.height);
  for (let y = 0; y < grid.height; y++) {
    for (let x = 0; x < grid.width; x++) plane[y * grid.width + x] = at((grid.x + x + 0.5) / grid.scale, (grid.y + y + 0.5) / grid.scale);
  }
  return plane;
}

function rasterBrush(shape: BrushShape, grid: Grid): Float32Array {
  const plane = new Float32Array(grid.width * grid.height);
  layStrokes(plane, brushGrid(shape, grid), shape.strokes, brushGoal);
  return plane;
}

/** The grid as a brushed area sees it, that was moved since it was laid. */
export function brushGrid({ x, y }: BrushShape, grid: Grid): Grid {
  return { ...grid, x: grid.x - x * grid.scale, y: grid.y - y * grid.scale };
}

/** Where a stroke of a brushed area leads. */
export function brushGoal({ erase }: Stroke): number {
  return erase ? 0 : 1;
}
