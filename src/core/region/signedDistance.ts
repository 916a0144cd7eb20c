import { PIECE, type Boundary } from "./boundary";
import type { Grid } from "../spatial/grid";

/** A block of pixels this small is not split further: all of it look for their nearest piece among the same few. */
const SMALLEST_BLOCK = 96;
/** Strips and corners overlap by this much, in pixels, so that no pixel is lost between them by rounding. */
const OVERLAP = 1e-6;

/**
 * The distance of every pixel's middle from a boundary, negative inside, exact to either side up to `reach`; further
 * away the sign alone counts. Inside is what the boundary runs round at all.
 *
 * Shape   a value for each pixel of the grid: the distance, or what `of` makes of it, which must tell −reach from reach.
 * Units   long edges, as the boundary's.
 * Cost    hardly grows with reach or pieces: blocks are split in four, and each asks only what can be nearest somewhere in it;
 *         a piece visits only the pixels beside it, one of its corners only those between the strips that meet there.
 * Source  exact at any scale where a distance transform (Felzenszwalb & Huttenlocher 2012) would tie it to one grid:
 *         docs/decisions/0008-regions.md.
 */
export function signedDistance(boundary: Boundary, grid: Grid, reach: number, of: (away: number) => number = (away) => away): Float32Array {
  const out = new Float32Array(grid.width * grid.height).fill(of(reach));
  const inside = Math.fround(of(-reach));
  fillInside(out, boundary, grid, inside);
  const put = (at: number, away: number) => {
    out[at] = of(out[at] === inside ? -away : away);
  };
  measureBlock(put, grid, piecesOf(boundary, grid), { left: 0, top: 0, right: grid.width, bottom: grid.height }, reach * grid.scale);
  return out;
}

/** A boundary's inside, and the distances of those pixels alone that are near it. */
export interface NearDistances {
  /** 1 for every pixel inside, 0 for those outside. */
  inside: Float32Array;
  /** As signedDistance tells it; 0 for pixels that are not near. */
  away: Float32Array;
  /** The pixels no further than `reach` from the boundary. */
  near: number[];
}

/** The same for a thin edge of a large picture: what lies far from it is touched by no more than filling. */
export function distancesNear(boundary: Boundary, grid: Grid, reach: number): NearDistances {
  const [inside, away] = [new Float32Array(grid.width * grid.height), new Float32Array(grid.width * grid.height)];
  fillInside(inside, boundary, grid, 1);
  const near: number[] = [];
  const put = (at: number, distance: number) => {
    away[at] = inside[at] === 1 ? -distance : distance;
    near.push(at);
  };
  measureBlock(put, grid, piecesOf(boundary, grid), { left: 0, top: 0, right: grid.width, bottom: grid.height }, reach * grid.scale);
  return { inside, away, near };
}

/** Takes the distance of a pixel from the line, without its sign. */
type Put = (at: number, away: number) => void;

interface Block {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Measures the pixels of a block, split in four as long as it is large: each quarter asks only what can be nearest there. */
function measureBlock(put: Put, grid: Grid, pieces: Pieces, block: Block, farthest: number): void {
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
        if (r > l && b > t) measureBlock(put, grid, near, { left: l, top: t, right: r, bottom: b }, farthest);
      }
    }
    return;
  }
  measureLeaf(put, grid, near, block, farthest);
}

/** The least square distance of each pixel of a block, row after row. */
const squares = new Float64Array(SMALLEST_BLOCK * SMALLEST_BLOCK);

/** Every place is nearest to the inside of a piece, and then lies in the strip beside it, or to a corner, and then between two strips. */
function measureLeaf(put: Put, { width, scale }: Grid, near: Pieces, block: Block, farthest: number): void {
  const { left, top, right, bottom } = block;
  const columns = right - left;
  squares.fill(farthest * farthest, 0, columns * (bottom - top));
  for (let i = 0; i < near.length; i += NUMBERS) {
    visitStrip(near, i, block, farthest);
    visitCorner(near, i, block, farthest);
  }
  for (let y = top, k = 0; y < bottom; y++) {
    for (let x = left, at = y * width + left; x < right; x++, at++, k++) {
      const square = squares[k]!;
      if (square < farthest * farthest) put(at, Math.sqrt(square) / scale);
    }
  }
}

/** The pixels beside a piece, no further than `farthest` from it. */
function visitStrip(pieces: Pieces, i: number, { left, top, right, bottom }: Block, farthest: number): void {
  const [x0, y0, ax, ay, length] = [pieces[i]!, pieces[i + 1]!, pieces[i + 2]!, pieces[i + 3]!, pieces[i + 4]!];
  if (length === 0) return;
  const [y1, reachY] = [y0 + ay * length, farthest * Math.abs(ax) + OVERLAP];
  const last = Math.min(Math.floor(Math.max(y0, y1) + reachY), bottom - 1);
  for (let y = Math.max(Math.ceil(Math.min(y0, y1) - reachY), top); y <= last; y++) {
    // Along the piece between its ends, across it within reach: both are linear along a row.
    const start = -OVERLAP - (y - y0) * ay;
    const end = start + length + 2 * OVERLAP;
    const across = -(y - y0) * ax;
    const from = Math.max(Math.ceil(x0 + Math.max(least(ax, start, end), least(ay, -farthest - across, farthest - across))), left);
    const to = Math.min(Math.floor(x0 + Math.min(most(ax, start, end), most(ay, -farthest - across, farthest - across))), right - 1);
    for (let x = from, k = (y - top) * (right - left) + from - left; x <= to; x++, k++) {
      const away = (x - x0) * ay + across;
      if (away * away < squares[k]!) squares[k] = away * away;
    }
  }
}

/** The pixels beyond the end of the piece before and before the beginning of this one, no further than `farthest` from where they meet. */
function visitCorner(pieces: Pieces, i: number, { left, top, right, bottom }: Block, farthest: number): void {
  const [x0, y0, ax, ay] = [pieces[i]!, pieces[i + 1]!, pieces[i + 2]!, pieces[i + 3]!];
  const [bx, by] = [pieces[i + 5]!, pieces[i + 6]!];
  const last = Math.min(Math.floor(y0 + farthest), bottom - 1);
  for (let y = Math.max(Math.ceil(y0 - farthest), top); y <= last; y++) {
    const dy = y - y0;
    const half = Math.sqrt(Math.max(farthest * farthest - dy * dy, 0));
    const beyond = -OVERLAP - dy * by;
    const before = OVERLAP - dy * ay;
    const from = Math.max(Math.ceil(x0 + Math.max(-half, least(bx, beyond, Infinity), least(ax, -Infinity, before))), left);
    const to = Math.min(Math.floor(x0 + Math.min(half, most(bx, beyond, Infinity), most(ax, -Infinity, before))), right - 1);
    for (let x = from, k = (y - top) * (right - left) + from - left; x <= to; x++, k++) {
      const square = (x - x0) * (x - x0) + dy * dy;
      if (square < squares[k]!) squares[k] = square;
    }
  }
}

/** The least and the most x for which low ≤ slope · x ≤ high; none, from the infinite on, where there is no such x. */
function least(slope: number, low: number, high: number): number {
  if (slope === 0) return low <= 0 && high >= 0 ? -Infinity : Infinity;
  return (slope > 0 ? low : high) / slope;
}
function most(slope: number, low: number, high: number): number {
  return slope === 0 ? Infinity : (slope > 0 ? high : low) / slope;
}

/**
 * Straight pieces in pixels of the grid, counted from the middle of its first: where each begins, its direction and length, and the
 * direction of the one before it. One without length has no direction.
 */
type Pieces = Float64Array;
const NUMBERS = 7;

function piecesOf(boundary: Boundary, { x, y, scale }: Grid): Pieces {
  const pieces = new Float64Array((NUMBERS * boundary.length) / PIECE);
  for (let from = 0, at = 0; from < boundary.length; from += PIECE, at += NUMBERS) {
    const dx = (boundary[from + 2]! - boundary[from]!) * scale;
    const dy = (boundary[from + 3]! - boundary[from + 1]!) * scale;
    const length = Math.hypot(dx, dy);
    pieces[at] = boundary[from]! * scale - x - 0.5;
    pieces[at + 1] = boundary[from + 1]! * scale - y - 0.5;
    pieces[at + 2] = length && dx / length;
    pieces[at + 3] = length && dy / length;
    pieces[at + 4] = length;
    pieces[at + 5] = boundary[from + 4]!;
    pieces[at + 6] = boundary[from + 5]!;
  }
  return pieces;
}

function squareTo(pieces: Pieces, i: number, x: number, y: number): number {
  const [px, py, ax, ay] = [x - pieces[i]!, y - pieces[i + 1]!, pieces[i + 2]!, pieces[i + 3]!];
  const along = Math.min(Math.max(px * ax + py * ay, 0), pieces[i + 4]!);
  const [ex, ey] = [px - along * ax, py - along * ay];
  return ex * ex + ey * ey;
}

/** The pieces that can be nearest to any place within `radius` of (x, y), one after the other; none if all lie beyond the reach. */
function nearPieces(pieces: Pieces, x: number, y: number, radius: number, reach: number): Pieces {
  const squares = new Float64Array(pieces.length / NUMBERS);
  let smallest = Infinity;
  for (let i = 0; i < squares.length; i++) {
    const square = squareTo(pieces, NUMBERS * i, x, y);
    squares[i] = square;
    if (square < smallest) smallest = square;
  }
  const nearest = Math.sqrt(smallest);
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

/** Row by row: where the boundary is crossed, with which direction, and so what lies inside. */
function fillInside(out: Float32Array, boundary: Boundary, { x, y, scale, width, height }: Grid, value: number): void {
  const rows: ({ x: number; by: number }[] | undefined)[] = [];
  for (let i = 0; i < boundary.length; i += PIECE) {
    const [x0, y0] = [boundary[i]! * scale - x - 0.5, boundary[i + 1]! * scale - y - 0.5];
    const [x1, y1] = [boundary[i + 2]! * scale - x - 0.5, boundary[i + 3]! * scale - y - 0.5];
    const end = Math.min(Math.ceil(Math.max(y0, y1)), height);
    for (let row = Math.max(Math.ceil(Math.min(y0, y1)), 0); row < end; row++) {
      (rows[row] ??= []).push({ x: x0 + ((row - y0) / (y1 - y0)) * (x1 - x0), by: y0 < y1 ? 1 : -1 });
    }
  }
  rows.forEach((crossings, row) => {
    crossings!.sort((a, b) => a.x - b.x);
    let winding = 0;
    crossings!.forEach(({ x, by }, k) => {
      winding += by;
      if (winding === 0) return;
      const from = Math.max(Math.ceil(x), 0);
      const to = Math.min(Math.ceil(crossings![k + 1]?.x ?? x), width);
      if (to > from) out.fill(value, row * width + from, row * width + to);
    });
  });
}
