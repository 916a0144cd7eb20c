import type { Grid } from "./grid";

/** A block of pixels this small is not split further: all of it look for their nearest piece among the same few. */
const SMALLEST_BLOCK = 12;

/**
 * The distance of every pixel's middle from a closed line, negative inside, exact to either side up to `reach`; further
 * away the sign alone counts. Where the line crosses itself, what it runs round at least once in all is inside.
 *
 * Shape   a value for each pixel of the grid. Units: long edges, as the line's.
 * Cost    hardly grows with reach or pieces: blocks are split in four, and each asks only what can be nearest somewhere in it.
 * Source  exact at any scale where a distance transform (Felzenszwalb & Huttenlocher 2012) would tie it to one grid:
 *         docs/decisions/0008-regions.md.
 */
export function signedDistance(line: Float64Array, grid: Grid, reach: number): Float32Array {
  const out = new Float32Array(grid.width * grid.height).fill(reach);
  if (line.length < 6) return out;
  const pieces = piecesOf(line, grid);
  measureBlock(out, grid, pieces, { left: 0, top: 0, right: grid.width, bottom: grid.height }, reach * grid.scale);
  negateInside(out, pieces, grid);
  return out;
}

interface Block {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Measures the pixels of a block, split in four as long as it is large: each quarter asks only what can be nearest there. */
function measureBlock(out: Float32Array, grid: Grid, pieces: Pieces, block: Block, farthest: number): void {
  const { width, scale } = grid;
  const { left, top, right, bottom } = block;
  const near = nearPieces(pieces, (left + right - 1) / 2, (top + bottom - 1) / 2, Math.hypot(right - left, bottom - top) / 2, farthest);
  if (near.length === 0) return;
  if (Math.max(right - left, bottom - top) > SMALLEST_BLOCK) {
    const [x, y] = [Math.ceil((left + right) / 2), Math.ceil((top + bottom) / 2)];
    for (const [l, r] of [
      [left, x],
      [x, right],
    ] as const) {
      for (const [t, b] of [
        [top, y],
        [y, bottom],
      ] as const) {
        if (r > l && b > t) measureBlock(out, grid, near, { left: l, top: t, right: r, bottom: b }, farthest);
      }
    }
    return;
  }
  for (let y = top; y < bottom; y++) {
    for (let x = left, at = y * width + left; x < right; x++, at++) {
      out[at] = Math.min(Math.sqrt(leastSquare(near, x, y)), farthest) / scale;
    }
  }
}

/** Straight pieces in pixels of the grid, counted from the middle of its first: x, y, their change, and one over its square. */
type Pieces = Float64Array;
const NUMBERS = 5;

function piecesOf(line: Float64Array, { x, y, scale }: Grid): Pieces {
  const pieces = new Float64Array((NUMBERS * line.length) / 2);
  for (let i = 0, at = 0; i < line.length; i += 2, at += NUMBERS) {
    const next = (i + 2) % line.length;
    const dx = (line[next]! - line[i]!) * scale;
    const dy = (line[next + 1]! - line[i + 1]!) * scale;
    pieces[at] = line[i]! * scale - x - 0.5;
    pieces[at + 1] = line[i + 1]! * scale - y - 0.5;
    pieces[at + 2] = dx;
    pieces[at + 3] = dy;
    pieces[at + 4] = dx === 0 && dy === 0 ? 0 : 1 / (dx * dx + dy * dy);
  }
  return pieces;
}

function squareTo(pieces: Pieces, i: number, x: number, y: number): number {
  const px = x - pieces[i]!;
  const py = y - pieces[i + 1]!;
  const dx = pieces[i + 2]!;
  const dy = pieces[i + 3]!;
  const along = (px * dx + py * dy) * pieces[i + 4]!;
  const u = along < 0 ? 0 : along > 1 ? 1 : along;
  const ex = px - u * dx;
  const ey = py - u * dy;
  return ex * ex + ey * ey;
}

/** The pieces that can be nearest to any place within `radius` of (x, y), one after the other; none if all lie beyond the reach. */
function nearPieces(pieces: Pieces, x: number, y: number, radius: number, reach: number): Pieces {
  const squares = new Float64Array(pieces.length / NUMBERS);
  let least = Infinity;
  for (let i = 0; i < squares.length; i++) {
    const square = squareTo(pieces, NUMBERS * i, x, y);
    squares[i] = square;
    if (square < least) least = square;
  }
  const nearest = Math.sqrt(least);
  if (nearest - radius > reach) return NONE;
  const limit = (nearest + 2 * radius + 1e-6) ** 2;
  let count = 0;
  for (let i = 0; i < squares.length; i++) if (squares[i]! <= limit) count++;
  const near = new Float64Array(NUMBERS * count);
  for (let i = 0, at = 0; i < squares.length; i++) {
    if (squares[i]! > limit) continue;
    for (let k = 0; k < NUMBERS; k++) near[at++] = pieces[NUMBERS * i + k]!;
  }
  return near;
}
const NONE: Pieces = new Float64Array(0);

function leastSquare(pieces: Pieces, x: number, y: number): number {
  let least = Infinity;
  for (let i = 0; i < pieces.length; i += NUMBERS) {
    const square = squareTo(pieces, i, x, y);
    if (square < least) least = square;
  }
  return least;
}

/** Row by row: where the line is crossed, with which direction, and so what lies inside. */
function negateInside(out: Float32Array, pieces: Pieces, { width, height }: Grid): void {
  for (let y = 0; y < height; y++) {
    const crossings: { x: number; by: number }[] = [];
    for (let i = 0; i < pieces.length; i += NUMBERS) {
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
