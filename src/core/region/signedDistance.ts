import type { Grid } from "./grid";

/** Pixels of a block to each side: all of one block look for their nearest piece among the same few. */
const BLOCK = 16;

/**
 * The distance of every pixel's middle from a closed line, negative inside, exact to either side up to `reach`; further
 * away the sign alone counts. Where the line crosses itself, what it runs round at least once in all is inside.
 *
 * Shape   a value for each pixel of the grid. Units: long edges, as the line's.
 * Cost    independent of reach: each block of pixels asks only those pieces that can be nearest somewhere in it.
 * Source  exact at any scale where a distance transform (Felzenszwalb & Huttenlocher 2012) would tie it to one grid:
 *         docs/decisions/0008-regions.md.
 */
export function signedDistance(line: Float64Array, grid: Grid, reach: number): Float32Array {
  const out = new Float32Array(grid.width * grid.height).fill(reach);
  if (line.length < 6) return out;
  const pieces = piecesOf(line, grid);
  const farthest = reach * grid.scale;
  for (let top = 0; top < grid.height; top += BLOCK) {
    for (let left = 0; left < grid.width; left += BLOCK) {
      const [right, bottom] = [Math.min(left + BLOCK, grid.width), Math.min(top + BLOCK, grid.height)];
      const near = nearPieces(pieces, (left + right - 1) / 2, (top + bottom - 1) / 2, Math.hypot(right - left, bottom - top) / 2, farthest);
      if (near.length === 0) continue;
      for (let y = top; y < bottom; y++) {
        for (let x = left; x < right; x++) {
          out[y * grid.width + x] = Math.min(Math.sqrt(leastSquare(pieces, near, x, y)), farthest) / grid.scale;
        }
      }
    }
  }
  negateInside(out, pieces, grid);
  return out;
}

/** Straight pieces in pixels of the grid, counted from the middle of its first: 4 numbers each, x, y and their change. */
type Pieces = Float64Array;

function piecesOf(line: Float64Array, { x, y, scale }: Grid): Pieces {
  const pieces = new Float64Array(2 * line.length);
  for (let i = 0; i < line.length; i += 2) {
    const next = (i + 2) % line.length;
    pieces[2 * i] = line[i]! * scale - x - 0.5;
    pieces[2 * i + 1] = line[i + 1]! * scale - y - 0.5;
    pieces[2 * i + 2] = (line[next]! - line[i]!) * scale;
    pieces[2 * i + 3] = (line[next + 1]! - line[i + 1]!) * scale;
  }
  return pieces;
}

function squareTo(pieces: Pieces, i: number, x: number, y: number): number {
  const [px, py, dx, dy] = [x - pieces[i]!, y - pieces[i + 1]!, pieces[i + 2]!, pieces[i + 3]!];
  const length2 = dx * dx + dy * dy;
  const u = length2 > 0 ? Math.min(Math.max((px * dx + py * dy) / length2, 0), 1) : 0;
  const [ex, ey] = [px - u * dx, py - u * dy];
  return ex * ex + ey * ey;
}

/** The pieces that can be nearest to any place within `radius` of (x, y); none if all lie beyond the reach. */
function nearPieces(pieces: Pieces, x: number, y: number, radius: number, reach: number): number[] {
  const squares = new Float64Array(pieces.length / 4);
  let least = Infinity;
  for (let i = 0; i < pieces.length; i += 4) {
    squares[i / 4] = squareTo(pieces, i, x, y);
    least = Math.min(least, squares[i / 4]!);
  }
  const nearest = Math.sqrt(least);
  if (nearest - radius > reach) return [];
  const limit = (nearest + 2 * radius + 1e-6) ** 2;
  const near: number[] = [];
  squares.forEach((square, i) => square <= limit && near.push(4 * i));
  return near;
}

function leastSquare(pieces: Pieces, near: readonly number[], x: number, y: number): number {
  let least = Infinity;
  for (const i of near) {
    const square = squareTo(pieces, i, x, y);
    if (square < least) least = square;
  }
  return least;
}

/** Row by row: where the line is crossed, with which direction, and so what lies inside. */
function negateInside(out: Float32Array, pieces: Pieces, { width, height }: Grid): void {
  for (let y = 0; y < height; y++) {
    const crossings: { x: number; by: number }[] = [];
    for (let i = 0; i < pieces.length; i += 4) {
      const [y0, y1] = [pieces[i + 1]!, pieces[i + 1]! + pieces[i + 3]!];
      if (y0 <= y === y1 <= y) continue;
      crossings.push({ x: pieces[i]! + ((y - y0) / (y1 - y0)) * pieces[i + 2]!, by: y0 <= y ? 1 : -1 });
    }
    crossings.sort((a, b) => a.x - b.x);
    let winding = 0;
    crossings.forEach(({ x, by }, k) => {
      winding += by;
      if (winding === 0) return;
      const from = Math.max(Math.ceil(x), 0);
      const to = Math.min(Math.ceil(crossings[k + 1]?.x ?? x), width);
      for (let column = from; column < to; column++) out[y * width + column] = -out[y * width + column]!;
    });
  }
}
