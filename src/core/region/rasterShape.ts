import { layStrokes } from "../brush/layStrokes";
import type { Stroke } from "../brush/stroke";
import { beyondFrame, type Frame } from "./beyondFrame";
import { boundaryOf, PIECE, type Boundary } from "./boundary";
import { gradientAlong, smoothStep } from "./contour";
import type { Grid } from "./grid";
import { layPicture } from "./layPicture";
import type { BrushShape, Feather, GradientShape, LikenessShape, OutlineShape, OvalShape, Shape } from "./region";
import { piecesNearRows, signedDistance } from "./signedDistance";

/** A shape that its data alone lay out; a likeness needs the picture too. */
export type DrawnShape = Exclude<Shape, LikenessShape>;

/**
 * How far a shape acts on each pixel of a grid, 0–1: at an edge the part of the pixel that it covers, so that a small picture agrees with a large one.
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
/** Places to a side of a pixel where they are. */
const PLACES = 4;
/** From the middle of a pixel to its corner. */
const HALF_DIAGONAL = Math.SQRT1_2;
/** Pixels to a side of the blocks that are looked at so. */
const BLOCK = 8;

/** An edge falls off smoothly between the inner and the outer line, over one pixel at least; a narrow one is covered by as much as the pixel is. */
function rasterContour(shape: OutlineShape | OvalShape, grid: Grid, soften: number): Float32Array {
  const frame = { width: grid.whole.width / grid.scale, height: grid.whole.height / grid.scale };
  // What is softened afterwards ends that much farther out.
  const reaching = { inner: shape.inner + SOFTENED_REACH * soften, outer: shape.outer + SOFTENED_REACH * soften };
  const boundary = carriedBoundary(shape, frame, reaching);
  const isNarrow = (shape.inner + shape.outer) * grid.scale < NARROW;
  const plane = edgePlane(boundary, shape, grid);
  if (isNarrow) coverEdges(plane, boundary, shape, grid);
  return plane;
}

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

function edgePlane(boundary: Boundary, feather: Feather, grid: Grid): Float32Array {
  const { outer, inner, width } = edgesOf(feather, grid);
  // An edge without a feather is covered as straight as the pixel is.
  const ramp = (feather.inner + feather.outer) * grid.scale < 1 ? (u: number) => u : smoothStep;
  return signedDistance(boundary, grid, Math.max(outer, -inner) + 1 / grid.scale, (away) => {
    return away >= outer ? 0 : away <= inner ? 1 : ramp((outer - away) / width);
  });
}

function edgesOf({ inner, outer }: Feather, { scale }: Grid): { outer: number; inner: number; width: number } {
  const width = Math.max(inner + outer, 1 / scale);
  const end = (outer - inner + width) / 2;
  return { outer: end, inner: end - width, width };
}

/** Lays the pixels that an edge crosses out anew, as the mean of what many places in them get. */
function coverEdges(plane: Float32Array, boundary: Boundary, feather: Feather, grid: Grid): void {
  const { outer, inner } = edgesOf(feather, grid);
  const reach = Math.max(outer, -inner) + HALF_DIAGONAL / grid.scale;
  for (let top = 0; top < grid.height; top += BLOCK) {
    const rows = { ...grid, y: grid.y + top, height: Math.min(BLOCK, grid.height - top) };
    const near = piecesNearRows(boundary, rows, reach);
    if (near.length === 0) continue;
    for (let left = 0; left < grid.width; left += BLOCK) {
      const block = { ...rows, x: grid.x + left, width: Math.min(BLOCK, grid.width - left) };
      if (comesNear(near, block, reach)) coverBlock(plane, near, feather, grid, block);
    }
  }
}

function coverBlock(plane: Float32Array, boundary: Boundary, feather: Feather, grid: Grid, block: Grid): void {
  const { x, y, width, height, scale } = block;
  const fine = {
    ...block,
    x: PLACES * x,
    y: PLACES * y,
    width: PLACES * width,
    height: PLACES * height,
    scale: PLACES * scale,
  };
  const laid = edgePlane(boundary, feather, fine);
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      let sum = 0;
      for (let v = 0; v < PLACES; v++) {
        const from = (row * PLACES + v) * fine.width + column * PLACES;
        for (let u = 0; u < PLACES; u++) sum += laid[from + u]!;
      }
      plane[(y - grid.y + row) * grid.width + (x - grid.x + column)] = sum / PLACES ** 2;
    }
  }
}

/** Whether any piece's box comes near a block. */
function comesNear(boundary: Boundary, { x, y, width, height, scale }: Grid, reach: number): boolean {
  const [left, right, top, bottom] = [x / scale - reach, (x + width) / scale + reach, y / scale - reach, (y + height) / scale + reach];
  for (let i = 0; i < boundary.length; i += PIECE) {
    const [x0, y0, x1, y1] = [boundary[i]!, boundary[i + 1]!, boundary[i + 2]!, boundary[i + 3]!];
    if (Math.max(x0, x1) >= left && Math.min(x0, x1) <= right && Math.max(y0, y1) >= top && Math.min(y0, y1) <= bottom) return true;
  }
  return false;
}

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
