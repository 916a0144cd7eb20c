import { contourOf } from "./contour";
import type { OutlineShape, OvalShape } from "./region";

/**
 * What parts a shape's inside from its outside, as straight pieces with the inside to their right as x runs right and y down: for each
 * where it begins, where it ends, and the direction in which the piece before it arrives there (0, 0 where none does). The inside is what
 * it runs round at all.
 *
 * Shape   PIECE numbers a piece. Units: long edges; directions of length 1.
 */
export type Boundary = Float64Array;
export const PIECE = 6;

const known = new WeakMap<OutlineShape | OvalShape, Boundary>();

/** The boundary of a drawn shape; bands of an export ask again and again. */
export function boundaryOf(shape: OutlineShape | OvalShape): Boundary {
  let boundary = known.get(shape);
  if (!boundary) known.set(shape, (boundary = unionBoundary(contourOf(shape), Math.max(shape.inner + shape.outer, LEAST_HOLE))));
  return boundary;
}

/** A gap narrower than this is no hole but a hand that ran beside its own line, in long edges. */
const LEAST_HOLE = 0.004;

/** Nearer than this things are taken to touch, in long edges: a thousandth of a pixel of the largest picture. */
const TOUCH = 1e-7;

/**
 * The boundary of all that a closed line runs round at least once. A line that crosses or overruns itself is split where it does, and of
 * its parts those are left that have the inside to one side only: no seam remains within. What a line leaves out by running back beside
 * itself, a gap narrower than `leastHole`, is filled.
 *
 * Shape   x and y of each corner. One with fewer than three holds nothing. Units: leastHole in long edges.
 */
export function unionBoundary(line: Float64Array, leastHole = 0): Boundary {
  const path = withoutRepeats(line);
  if (path.length < 6) return new Float64Array(0);
  const splits = splitsOf(path);
  if (splits.length === 0) return closedBoundary(path);
  const parts: number[][] = [];
  splits.forEach((from, k) => {
    const part = partBetween(path, from, splits[(k + 1) % splits.length]!);
    const side = insideOf(part, path);
    if (side !== 0) parts.push(side > 0 ? part : reversed(part));
  });
  const kept = ringsOf(parts).filter((ring) => areaOf(ring) > 0 || widthOf(ring) >= leastHole);
  return Float64Array.from(kept.flatMap(openPieces));
}

/** Parts joined end to end into rings that each go round one stretch of the outside, or of a hole. */
function ringsOf(parts: readonly number[][]): number[][] {
  const goesOn = (from: readonly number[], to: readonly number[]) => Math.hypot(to[0]! - from.at(-2)!, to[1]! - from.at(-1)!) < 4 * TOUCH;
  const isUsed = new Set<number[]>();
  return parts.flatMap((first) => {
    if (isUsed.has(first)) return [];
    const ring: number[] = [];
    for (let part: number[] | undefined = first; part;) {
      isUsed.add(part);
      ring.push(...(ring.length ? part.slice(2) : part));
      if (goesOn(part, first)) {
        [ring[ring.length - 2], ring[ring.length - 1]] = [ring[0]!, ring[1]!];
        break;
      }
      const from: number[] = part;
      const next = parts.filter((other) => !isUsed.has(other) && goesOn(from, other));
      // The outside lies to the left: what keeps closest to it goes round the same stretch of it.
      part = next.toSorted((a, b) => leftTurn(from, b) - leftTurn(from, a))[0];
    }
    return [ring];
  });
}

/** How far to the left a part goes on from the end of another, in radians. */
function leftTurn(from: readonly number[], to: readonly number[]): number {
  const [ax, ay] = [from.at(-2)! - from.at(-4)!, from.at(-1)! - from.at(-3)!];
  const [bx, by] = [to[2]! - to[0]!, to[3]! - to[1]!];
  return Math.atan2(bx * ay - by * ax, ax * bx + ay * by);
}

/** The area within a ring, below 0 where it goes round a hole. */
function areaOf(ring: readonly number[]): number {
  let area = 0;
  for (let i = 0; i < ring.length; i += 2) {
    const next = (i + 2) % ring.length;
    area += (ring[i]! * ring[next + 1]! - ring[next]! * ring[i + 1]!) / 2;
  }
  return area;
}

/** About how wide what a ring goes round is: that of a long strip of its area and girth. */
function widthOf(ring: readonly number[]): number {
  let girth = 0;
  for (let i = 0; i + 3 < ring.length; i += 2) girth += Math.hypot(ring[i + 2]! - ring[i]!, ring[i + 3]! - ring[i + 1]!);
  return girth === 0 ? 0 : (2 * Math.abs(areaOf(ring))) / girth;
}

function withoutRepeats(line: Float64Array): Float64Array {
  const kept: number[] = [];
  const isNear = (x: number, y: number, px: number, py: number) => Math.abs(x - px) < TOUCH && Math.abs(y - py) < TOUCH;
  for (let i = 0; i < line.length; i += 2) {
    if (kept.length === 0 || !isNear(line[i]!, line[i + 1]!, kept.at(-2)!, kept.at(-1)!)) kept.push(line[i]!, line[i + 1]!);
  }
  while (kept.length > 2 && isNear(kept[0]!, kept[1]!, kept.at(-2)!, kept.at(-1)!)) kept.length -= 2;
  return Float64Array.from(kept);
}

/** A line that does not cross itself, turned so that its inside lies to the right. */
function closedBoundary(path: Float64Array): Boundary {
  const corners = areaOf([...path]) > 0 ? [...path] : reversed([...path]);
  const pieces = openPieces([...corners, corners[0]!, corners[1]!]);
  const end = pieces.length - PIECE; // the cap: what arrives there arrives at the beginning
  [pieces[4], pieces[5]] = [pieces[end + 4]!, pieces[end + 5]!];
  return Float64Array.from(pieces.slice(0, end));
}

function reversed(corners: number[]): number[] {
  const out: number[] = [];
  for (let i = corners.length - 2; i >= 0; i -= 2) out.push(corners[i]!, corners[i + 1]!);
  return out;
}

/** The pieces of a line with two ends, and one without length at its end. */
export function openPieces(corners: readonly number[]): number[] {
  const pieces: number[] = [];
  let [px, py] = [0, 0];
  for (let i = 0; i + 2 <= corners.length; i += 2) {
    const [x0, y0, x1, y1] = [corners[i]!, corners[i + 1]!, corners[i + 2] ?? corners[i]!, corners[i + 3] ?? corners[i + 1]!];
    pieces.push(x0, y0, x1, y1, px, py);
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (length > 0) [px, py] = [(x1 - x0) / length, (y1 - y0) / length];
  }
  return pieces;
}

/** A place on a line: on the piece that begins at its corner `i`, a part of it on. */
interface Place {
  i: number;
  part: number;
}

/** Where a line meets itself, in its order. */
function splitsOf(path: Float64Array): Place[] {
  const count = path.length / 2;
  const found: Place[] = [];
  const add = (i: number, part: number, length: number) => {
    if (part * length < TOUCH) found.push({ i, part: 0 });
    else if ((1 - part) * length < TOUCH) found.push({ i: (i + 1) % count, part: 0 });
    else found.push({ i, part });
  };
  forNearPairs(path, (i, j) => meet(path, i, j, add));
  found.sort((a, b) => a.i - b.i || a.part - b.part);
  return found.filter(({ i, part }, k) => k === 0 || i !== found[k - 1]!.i || part - found[k - 1]!.part > 1e-12);
}

/** Pairs of pieces whose boxes touch, each once. */
function forNearPairs(path: Float64Array, visit: (i: number, j: number) => void): void {
  const count = path.length / 2;
  const box = (i: number, axis: number) => {
    const [a, b] = [path[2 * i + axis]!, path[2 * ((i + 1) % count) + axis]!];
    return a < b ? [a - TOUCH, b + TOUCH] : [b - TOUCH, a + TOUCH];
  };
  const boxes = Array.from({ length: count }, (_, i) => [...box(i, 0), ...box(i, 1)] as [number, number, number, number]);
  const byLeft = Array.from({ length: count }, (_, i) => i).sort((a, b) => boxes[a]![0] - boxes[b]![0]);
  byLeft.forEach((i, k) => {
    const [, right, top, bottom] = boxes[i]!;
    for (let n = k + 1; n < count; n++) {
      const j = byLeft[n]!;
      const other = boxes[j]!;
      if (other[0] > right) break;
      if (other[2] <= bottom && other[3] >= top) visit(i, j);
    }
  });
}

/** Tells where two pieces meet, beyond the corner that neighbours share: where they cross, touch, or run on one another. */
function meet(path: Float64Array, i: number, j: number, add: (i: number, part: number, length: number) => void): void {
  const count = path.length / 2;
  const end = (k: number) => (k + 1) % count;
  const [ax, ay, bx, by] = [path[2 * i]!, path[2 * i + 1]!, path[2 * j]!, path[2 * j + 1]!];
  const [adx, ady] = [path[2 * end(i)]! - ax, path[2 * end(i) + 1]! - ay];
  const [bdx, bdy] = [path[2 * end(j)]! - bx, path[2 * end(j) + 1]! - by];
  const [aLength, bLength] = [Math.hypot(adx, ady), Math.hypot(bdx, bdy)];
  const areNeighbours = end(i) === j || end(j) === i;
  // The ends of each on the other.
  let touches = 0;
  const touch = (k: number, x: number, y: number, dx: number, dy: number, length: number, corner: number) => {
    if (corner === k || corner === end(k)) return;
    const [px, py] = [path[2 * corner]! - x, path[2 * corner + 1]! - y];
    const along = (px * dx + py * dy) / (length * length);
    if (along * length < -TOUCH || (along - 1) * length > TOUCH || Math.abs(px * dy - py * dx) > TOUCH * length) return;
    touches++;
    add(k, Math.min(Math.max(along, 0), 1), length);
    add(corner, 0, Infinity);
  };
  touch(i, ax, ay, adx, ady, aLength, j);
  touch(i, ax, ay, adx, ady, aLength, end(j));
  touch(j, bx, by, bdx, bdy, bLength, i);
  touch(j, bx, by, bdx, bdy, bLength, end(i));
  const across = adx * bdy - ady * bdx;
  if (touches > 0 || areNeighbours || across === 0) return;
  const a = ((bx - ax) * bdy - (by - ay) * bdx) / across;
  const b = ((bx - ax) * ady - (by - ay) * adx) / across;
  if (a < 0 || a > 1 || b < 0 || b > 1) return;
  add(i, a, aLength);
  add(j, b, bLength);
}

/** The corners of a line from one place to the next one that it meets. */
function partBetween(path: Float64Array, from: Place, to: Place): number[] {
  const count = path.length / 2;
  const at = ({ i, part }: Place) => {
    const next = (i + 1) % count;
    return [path[2 * i]! + part * (path[2 * next]! - path[2 * i]!), path[2 * i + 1]! + part * (path[2 * next + 1]! - path[2 * i + 1]!)];
  };
  const corners = at(from);
  const isFurther = to.i > from.i || (to.i === from.i && to.part > from.part);
  const pieces = (to.i - from.i + (isFurther ? 0 : count)) as number;
  for (let k = 1; k <= pieces; k++) {
    const i = (from.i + k) % count;
    if (k < pieces || to.part > 0) corners.push(path[2 * i]!, path[2 * i + 1]!);
  }
  corners.push(...at(to));
  return corners;
}

/** Which side of a part is the inside: to the right of its way 1, to the left −1, where both are or neither 0. */
function insideOf(part: readonly number[], path: Float64Array): number {
  let [longest, at] = [0, 0];
  for (let i = 0; i + 3 < part.length; i += 2) {
    const length = Math.hypot(part[i + 2]! - part[i]!, part[i + 3]! - part[i + 1]!);
    if (length > longest) [longest, at] = [length, i];
  }
  if (longest === 0) return 0;
  const [x, y] = [(part[at]! + part[at + 2]!) / 2, (part[at + 1]! + part[at + 3]!) / 2];
  const beside = Math.min(TOUCH, longest / 4) / longest;
  const [nx, ny] = [-(part[at + 3]! - part[at + 1]!) * beside, (part[at + 2]! - part[at]!) * beside];
  return Number(winding(path, x + nx, y + ny) !== 0) - Number(winding(path, x - nx, y - ny) !== 0);
}

/** How often a closed line runs round a place. */
function winding(path: Float64Array, x: number, y: number): number {
  let turns = 0;
  for (let i = 0; i < path.length; i += 2) {
    const next = (i + 2) % path.length;
    const [y0, y1] = [path[i + 1]!, path[next + 1]!];
    if (y0 <= y === y1 <= y) continue;
    const at = path[i]! + ((y - y0) / (y1 - y0)) * (path[next]! - path[i]!);
    if (at > x) turns += y0 < y1 ? 1 : -1;
  }
  return turns;
}
