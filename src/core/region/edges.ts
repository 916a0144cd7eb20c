import { smoothStep } from "../curves/smoothStep";
import type { Boundary } from "./boundary";
import type { Grid } from "../spatial/grid";
import type { Feather } from "./region";
import { distancesNear, signedDistance } from "./signedDistance";

/** Places to a side of a pixel that an edge crosses. */
const PLACES = 4;
/** From the middle of a pixel to its corner. */
const HALF_DIAGONAL = Math.SQRT1_2;
/** Where distances grow by this much more or less than straight away from an edge, a corner is near. */
const BENT = 0.05;

/**
 * A contour whose edges are told by the middles of pixels: full from the inner line on, nothing from the outer one.
 *
 * Shape   a share, 0–1, for each pixel of the grid. Units: boundary and feather in long edges.
 */
export function smoothEdges(boundary: Boundary, feather: Feather, grid: Grid): Float32Array {
  const fall = fallOf(feather, grid);
  return signedDistance(boundary, grid, Math.max(fall.outer, -fall.inner) + 1 / grid.scale, (away) => shareAt(fall, away));
}

/**
 * A contour of edges so narrow that a pixel gets the mean of many places in it. Beside a straight edge the distance of each place follows
 * from that of the pixel's middle and the way it grows there; at a corner each place is measured.
 *
 * Shape, units  as smoothEdges.
 */
export function coveredEdges(boundary: Boundary, feather: Feather, grid: Grid): Float32Array {
  const { width, height, scale } = grid;
  const fall = fallOf(feather, finerGrid(grid));
  const [outer, inner] = [fall.outer + HALF_DIAGONAL / scale, fall.inner - HALF_DIAGONAL / scale];
  // A pixel more on each side, by which distances tell how they grow.
  const wider = { ...grid, x: grid.x - 1, y: grid.y - 1, width: width + 2, height: height + 2 };
  const { inside, away, near } = distancesNear(boundary, wider, Math.max(outer, -inner) + 2 / scale);
  const plane = new Float32Array(width * height);
  for (let row = 0; row < height; row++) {
    const from = (row + 1) * wider.width + 1;
    plane.set(inside.subarray(from, from + width), row * width);
  }
  for (const at of near) {
    const [column, row] = [(at % wider.width) - 1, Math.floor(at / wider.width) - 1];
    if (column < 0 || row < 0 || column >= width || row >= height) continue;
    const middle = away[at]!;
    const [across, down] = [(away[at + 1]! - away[at - 1]!) / 2, (away[at + wider.width]! - away[at - wider.width]!) / 2];
    const isFar = middle >= outer || middle <= inner;
    const isStraight = isFar || Math.abs(Math.hypot(across, down) * scale - 1) < BENT;
    plane[row * width + column] = isStraight
      ? meanBeside(fall, middle, across, down)
      : meanMeasured(boundary, feather, { ...grid, x: grid.x + column, y: grid.y + row, width: 1, height: 1 });
  }
  return plane;
}

/** Where an edge begins and ends to fall off, and how. Units: long edges outside its line. */
interface Fall {
  outer: number;
  inner: number;
  isStraight: boolean;
}

function fallOf({ inner, outer }: Feather, { scale }: Grid): Fall {
  const width = Math.max(inner + outer, 1 / scale);
  const end = (outer - inner + width) / 2;
  // An edge without a feather is covered as straight as the pixel is.
  return { outer: end, inner: end - width, isStraight: (inner + outer) * scale < 1 };
}

function shareAt({ outer, inner, isStraight }: Fall, away: number): number {
  if (away >= outer) return 0;
  if (away <= inner) return 1;
  const part = (outer - away) / (outer - inner);
  return isStraight ? part : smoothStep(part);
}

/** The mean of a pixel's places, whose distances grow by `across` and `down` from pixel to pixel. */
function meanBeside(fall: Fall, middle: number, across: number, down: number): number {
  let sum = 0;
  for (let v = 0; v < PLACES; v++) {
    for (let u = 0; u < PLACES; u++) sum += shareAt(fall, middle + offset(u) * across + offset(v) * down);
  }
  return sum / PLACES ** 2;
}

/** Where a place of a pixel lies beside its middle, in pixels. */
function offset(place: number): number {
  return (place + 0.5) / PLACES - 0.5;
}

function meanMeasured(boundary: Boundary, feather: Feather, pixel: Grid): number {
  return smoothEdges(boundary, feather, finerGrid(pixel)).reduce((sum, share) => sum + share, 0) / PLACES ** 2;
}

function finerGrid(grid: Grid): Grid {
  const { x, y, width, height, scale } = grid;
  return { ...grid, x: PLACES * x, y: PLACES * y, width: PLACES * width, height: PLACES * height, scale: PLACES * scale };
}
