import { smoothStep } from "../curves/smoothStep";
import { layStrokes } from "../brush/layStrokes";
import type { Stroke } from "../brush/stroke";
import { beyondFrame, type Frame } from "./beyondFrame";
import { boundaryOf, type Boundary } from "./boundary";
import { gradientAlong } from "./contour";
import { squareCells } from "./squareCells";
import { coveredEdges, smoothEdges } from "./edges";
import type { Grid } from "../spatial/grid";
import { layCells } from "../spatial/layCells";
import { layPicture } from "./layPicture";
import type { BrushShape, Feather, GradientShape, LikenessShape, OutlineShape, OvalShape, Shape } from "./region";

/** A shape that its data alone lay out; a likeness needs the picture too. */
export type DrawnShape = Exclude<Shape, LikenessShape>;

/**
 * How far a shape acts on each pixel of a grid, 0–1: at an edge the part of the pixel that it covers, so that a small picture agrees with a
 * large one.
 *
 * Units   soften: the blur that its region gets afterwards, in long edges.
 */
export function rasterShape(shape: DrawnShape, grid: Grid, soften = 0): Float32Array {
  switch (shape.kind) {
    case "outline":
    case "oval":
      return rasterContour(shape, grid, soften);
    case "gradient":
      return rasterGradient(shape, grid);
    case "brush":
      return rasterBrush(shape, grid);
    case "picture":
      return layPicture(shape, grid);
  }
}

/** Edges narrower than this, in pixels, are weighed finer than at the middles of pixels. */
const NARROW = 4;

/**
 * An edge falls off smoothly between the inner and the outer line, over one pixel at least; a narrow one is covered by as much as the pixel
 * is.
 */
function rasterContour(shape: OutlineShape | OvalShape, grid: Grid, soften: number): Float32Array {
  const frame = { width: grid.whole.width / grid.scale, height: grid.whole.height / grid.scale };
  // What is softened afterwards ends that much farther out.
  const reaching = { inner: shape.inner + SOFTENED_REACH * soften, outer: shape.outer + SOFTENED_REACH * soften };
  const boundary = carriedBoundary(shape, frame, reaching);
  const softness = shape.inner + shape.outer;
  if (softness * grid.scale < NARROW) return coveredEdges(boundary, shape, grid);
  const cells = squareCells(grid.whole, Math.ceil(CELLS_IN_EDGE / softness));
  const isBroad = cells.scale <= MOST_CELLS && PIXELS_IN_CELL * cells.scale <= grid.scale;
  return isBroad ? readCells(shape, boundary, cells, grid) : smoothEdges(boundary, shape, grid);
}

/**
 * Cells to a broad edge: read between them it errs by half a hundredth at the most or little more where it is creased, by a thousandth at
 * the most elsewhere.
 */
const CELLS_IN_EDGE = 96;
/** It is worth it where so many pixels lie on a cell to a side, and cells are no more than this along the long edge. */
const PIXELS_IN_CELL = 2;
const MOST_CELLS = 1536;

/** A broad edge is smooth: it is laid out once on cells, however many bands and sizes ask for it, and read between them. */
function readCells(shape: OutlineShape | OvalShape, boundary: Boundary, cells: Grid, grid: Grid): Float32Array {
  const known = laid.get(shape);
  const plane = known?.boundary === boundary ? known.plane : smoothEdges(boundary, shape, cells);
  laid.set(shape, { boundary, plane });
  const read = layCells(plane, cells, grid, cells);
  for (let i = 0; i < read.length; i++) {
    if (read[i]! < 0) read[i] = 0;
    else if (read[i]! > 1) read[i] = 1;
  }
  return read;
}
const laid = new WeakMap<OutlineShape | OvalShape, { boundary: Boundary; plane: Float32Array }>();

/** The boundary of a shape carried on beyond the frame; bands of an export ask again and again. */
function carriedBoundary(shape: OutlineShape | OvalShape, frame: Frame, feather: Feather): Boundary {
  const key = `${frame.width} ${frame.height} ${feather.outer}`;
  const known = carried.get(shape);
  if (known?.key === key) return known.boundary;
  const boundary = beyondFrame(boundaryOf(shape), frame, feather);
  carried.set(shape, { key, boundary });
  return boundary;
}
const carried = new WeakMap<OutlineShape | OvalShape, { key: string; boundary: Boundary }>();

/** How far a blur carries an edge, in standard deviations. */
const SOFTENED_REACH = 2;

/** Of a steep gradient a pixel gets the mean over its area: the ramp is straight, so that its second integral gives it. */
function rasterGradient(shape: GradientShape, grid: Grid): Float32Array {
  const { across, down, start } = gradientAlong(shape);
  const [spanX, spanY] = [across / grid.scale, down / grid.scale];
  const isSteep = Math.abs(spanX) + Math.abs(spanY) > STEEP;
  const falling = isSteep ? (along: number) => onePixel(along, spanX, spanY) : (along: number) => smoothStep(1 - along);
  const at = shape.twoSided ? (along: number) => falling(along) + falling(-along) - 1 : falling;
  const plane = new Float32Array(grid.width * grid.height);
  for (let y = 0, i = 0; y < grid.height; y++) {
    const row = start + (down * (grid.y + y + 0.5)) / grid.scale;
    for (let x = 0; x < grid.width; x++, i++) plane[i] = at(row + (across * (grid.x + x + 0.5)) / grid.scale);
  }
  return plane;
}

/** A gradient that falls by more of itself than this in a pixel is weighed over it. */
const STEEP = 1 / 8;

/** The mean of a falling step 1 → 0 over along 0 → 1 on a pixel that spans `across` and `down` of it. */
function onePixel(along: number, across: number, down: number): number {
  const [a, b] = [Math.abs(across) / 2, Math.abs(down) / 2];
  if (along >= 1 + a + b) return 0;
  if (along <= -a - b) return 1;
  const [wide, narrow] = [Math.max(a, b), Math.min(a, b)];
  if (narrow < 1e-4 * wide) return (fallen(along + wide) - fallen(along - wide)) / (2 * wide);
  const second = (u: number) => fallenTwice(along + u);
  return (second(a + b) - second(a - b) - second(b - a) + second(-a - b)) / (4 * a * b);
}

/** The integral of smoothStep(1 − u) up to u, from 0. */
function fallen(u: number): number {
  if (u <= 0) return u;
  const v = Math.min(u, 1);
  return v - v ** 3 + v ** 4 / 2;
}

/** And its integral. */
function fallenTwice(u: number): number {
  if (u <= 0) return (u * u) / 2;
  const v = Math.min(u, 1);
  return v ** 2 / 2 - v ** 4 / 4 + v ** 5 / 10 + Math.max(u - 1, 0) / 2;
}

function rasterBrush(shape: BrushShape, grid: Grid): Float32Array {
  const plane = new Float32Array(grid.width * grid.height);
  layStrokes(plane, brushGrid(shape, grid), shape.strokes, brushGoal);
  return plane;
}

/** The grid as a brushed area sees it, that was moved since it was laid. */
export function brushGrid({ x, y }: BrushShape, grid: Grid): Grid {
  return { ...grid, x: grid.x - x * grid.scale, y: grid.y - y * grid.scale, moved: { x, y } };
}

/** Where a stroke of a brushed area leads. */
export function brushGoal({ erase }: Stroke): number {
  return erase ? 0 : 1;
}
