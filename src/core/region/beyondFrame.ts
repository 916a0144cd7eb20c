import { smoothStep } from "../curves/smoothStep";
import { openPieces, PIECE, type Boundary } from "./boundary";
import type { Feather } from "./region";

/** The frame of a picture, in long edges. */
export interface Frame {
  width: number;
  height: number;
}

/**
 * How far a piece faces a border, from where it counts to where it does fully: cosines of 81° and of 57°. What runs across it does not; the
 * round end of a line that ran along it does.
 */
const ALONG = { from: 0.15, fully: 0.55 } as const;
/** In a corner of the frame they do so from a right angle on, fully from here. */
const IN_CORNER = 0.3;
/** Near the frame pieces are taken this short, in parts of the way over which they are carried out. */
const PARTS = 6;

/**
 * A boundary carried on beyond the frame where it runs along it, so that nothing fades or leaves a rim there: a piece that is nearer to a
 * border than its own outer edge counts as reaching it and goes as far outside as its feather is wide; one that comes near begins to go,
 * without a jump. Pieces that run across the border stay where they are and go straight on.
 *
 * Units   long edges. Source: our own, docs/decisions/0008-regions.md.
 */
export function beyondFrame(boundary: Boundary, { width, height }: Frame, { inner, outer }: Feather): Boundary {
  const reach = inner + outer;
  if (reach === 0) return boundary;
  // For each border how deep a place lies inside it, and which way out is.
  const borders = [
    { depth: (x: number) => x, x: -1, y: 0 },
    { depth: (x: number) => width - x, x: 1, y: 0 },
    { depth: (_: number, y: number) => y, x: 0, y: -1 },
    { depth: (_: number, y: number) => height - y, x: 0, y: 1 },
  ];
  const way = outer / 2 + inner / 4;
  const begins = outer + way;
  const isNear = (x: number, y: number) => borders.some(({ depth }) => depth(x, y) < begins);
  /** For each border how far a piece is to be carried, and whether it faces it. */
  const facing = ({ x, y, nx, ny }: Piece): number[] => {
    const inReach = borders.map(({ depth }) => smoothStep((begins + 2 * reach - depth(x, y)) / reach));
    const nearSides = Math.max(inReach[0]!, inReach[1]!);
    const nearEnds = Math.max(inReach[2]!, inReach[3]!);
    return borders.map((out) => {
      // In a corner of the frame a round corner is meant to fill it: there it need not run along a border.
      const inCorner = out.x ? nearEnds : nearSides;
      const from = ALONG.from * (1 - inCorner);
      const fully = ALONG.fully + inCorner * (IN_CORNER - ALONG.fully);
      return smoothStep((nx * out.x + ny * out.y - from) / (fully - from));
    });
  };
  const carriedBy = ({ x, y }: Piece, faces: readonly number[]): [number, number] => {
    let [dx, dy] = [0, 0];
    for (const [k, { depth, ...out }] of borders.entries()) {
      const by = reach * smoothStep((begins - depth(x, y)) / way) * faces[k]!;
      if (by > Math.abs(out.x ? dx : dy)) [dx, dy] = out.x ? [by * out.x, dy] : [dx, by * out.y];
    }
    return [dx, dy];
  };
  const chains: number[][] = [];
  let isMoved = false;
  forChains(boundary, (corners, isClosed) => {
    const pieces = shortPieces(corners, way / PARTS, isNear);
    if (!pieces.some(({ x, y }) => isNear(x, y))) return void chains.push(corners);
    // And what lies within reach of those, along the line.
    const near = pieces.map(({ x, y }) => borders.some(({ depth }) => depth(x, y) < begins + 3 * reach));
    const faces = closed(
      pieces,
      pieces.map((piece, i) => (near[i] ? facing(piece) : FACING_NONE)),
      near,
      reach,
    );
    const line: number[] = [];
    let before: [number, number] | undefined;
    pieces.forEach((piece, i) => {
      const by = carriedBy(piece, faces[i]!);
      isMoved ||= by[0] !== 0 || by[1] !== 0;
      pushJoin(line, piece.x0, piece.y0, before ?? [0, 0], by, before !== undefined || !isClosed);
      line.push(piece.x1 + by[0], piece.y1 + by[1]);
      before = by;
    });
    const [x, y] = [corners.at(-2)!, corners.at(-1)!];
    const first: [number, number] = isClosed ? [line[0]! - corners[0]!, line[1]! - corners[1]!] : [0, 0];
    pushJoin(line, x, y, before!, first, true);
    chains.push(line);
  });
  return isMoved ? Float64Array.from(chains.flatMap(openPieces)) : boundary;
}

/** A piece, its middle, the way out, and how far along the line it lies. */
interface Piece {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  x: number;
  y: number;
  nx: number;
  ny: number;
  along: number;
}

/**
 * What pieces face, with gaps closed: one between two that face a border, no further along than `reach` to either side, goes with them. A
 * notch of a line along the border would else be drawn out to a slit; where a line turns away from it nothing changes.
 */
function closed(pieces: readonly Piece[], faces: readonly number[][], near: readonly boolean[], reach: number): number[][] {
  const over = (values: readonly number[][], pick: (a: number, b: number) => number) =>
    pieces.map(({ along }, i) => {
      if (!near[i]) return values[i]!;
      const out = [...values[i]!];
      for (const step of [-1, 1]) {
        for (let k = i + step; pieces[k] && Math.abs(pieces[k]!.along - along) <= reach; k += step) {
          const other = values[k]!;
          for (let border = 0; border < out.length; border++) out[border] = pick(out[border]!, other[border]!);
        }
      }
      return out;
    });
  return over(over(faces, Math.max), Math.min);
}
const FACING_NONE = [0, 0, 0, 0];

/** From a corner carried one way to the same corner carried another, around the outer corner of both. */
function pushJoin(line: number[], x: number, y: number, [ax, ay]: [number, number], [bx, by]: [number, number], isJoin: boolean): void {
  const farther = (a: number, b: number) => (Math.abs(a) > Math.abs(b) ? a : b);
  const places = isJoin ? [ax, ay, farther(ax, bx), farther(ay, by), bx, by] : [bx, by];
  for (let i = 0; i < places.length; i += 2) {
    const [px, py] = [x + places[i]!, y + places[i + 1]!];
    if (line.at(-2) !== px || line.at(-1) !== py) line.push(px, py);
  }
}

/** The corners of each stretch of pieces that follow one another. */
function forChains(boundary: Boundary, visit: (corners: number[], isClosed: boolean) => void): void {
  let corners: number[] = [];
  const finish = () => {
    if (corners.length >= 4) visit(corners, corners[0] === corners.at(-2) && corners[1] === corners.at(-1));
    corners = [];
  };
  for (let i = 0; i < boundary.length; i += PIECE) {
    const [x0, y0, x1, y1] = [boundary[i]!, boundary[i + 1]!, boundary[i + 2]!, boundary[i + 3]!];
    if (corners.length === 0) corners.push(x0, y0);
    else if (corners.at(-2) !== x0 || corners.at(-1) !== y0) {
      finish();
      corners.push(x0, y0);
    }
    if (x1 !== x0 || y1 !== y0) corners.push(x1, y1);
  }
  finish();
}

/** The pieces of a line, cut short where they are near. */
function shortPieces(corners: readonly number[], most: number, isNear: (x: number, y: number) => boolean): Piece[] {
  const pieces: Piece[] = [];
  let along = 0;
  for (let i = 0; i + 3 < corners.length; i += 2) {
    const [ax, ay] = [corners[i]!, corners[i + 1]!];
    const [dx, dy] = [corners[i + 2]! - ax, corners[i + 3]! - ay];
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const count = Math.min(Math.max(Math.ceil(length / most), 1), MOST_PARTS);
    const isCut = Array.from({ length: count + 1 }, (_, k) => k / count).some((u) => isNear(ax + u * dx, ay + u * dy));
    const parts = isCut ? count : 1;
    for (let k = 0; k < parts; k++) {
      const [u, v] = [k / parts, (k + 1) / parts];
      const [x0, y0, x1, y1] = [ax + u * dx, ay + u * dy, ax + v * dx, ay + v * dy];
      const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
      // The inside lies to the right of the way, so out is to its left.
      pieces.push({ x0, y0, x1, y1, x, y, nx: dy / length, ny: -dx / length, along: along + ((u + v) / 2) * length });
    }
    along += length;
  }
  return pieces;
}
const MOST_PARTS = 400;
