import { distanceFrom, pathPoints } from "../brush/path";
import type { Point } from "../region/region";
import type { Size } from "../spatial/areaReduce";
import { areaAround, type Area } from "./area";
import type { Spot } from "./spot";

/** A spot, or as much of a long scratch as is healed at once, on a picture of some size. Units: pixels. */
export interface SpotPiece {
  spot: Spot;
  /** Its middle line. */
  points: readonly Point[];
  radius: number;
  from: Point;
  /** Places close around the spot whose light is met. */
  ring: readonly Point[];
  /** How wide a surrounding of each of them tells its light: a standard deviation. */
  spread: number;
  /** The pixels that may change, those that are looked at here, and those where it takes from. */
  area: Area;
  around: Area;
  source: Area;
}

/** Length of a piece in radii, and in pixels at the least: a patch of pixels that is long and slanting is mostly empty. */
const PIECE_LENGTH = 12;
const LEAST_LENGTH = 24;
/** Where the ring lies in radii, its places' spread, and how far from one another they are at the least. */
const RING = 1.3;
const SPREAD = 0.22;
const RING_SPACING = 0.4;
const DIRECTIONS = 16;
/** Reach of a surrounding in its spreads. */
export const SPREADS = 2.5;
/** In pixels: finer than this there is nothing to look at. */
const LEAST_SPREAD = 0.5;
const LEAST_GAP = 0.8;
const LEAST_SPACING = 0.5;

/** The pieces of a spot on a picture of a size, in the order along it. Errors: CoreError `bad_path`. */
export function spotPieces(spot: Spot, size: Size): SpotPiece[] {
  const long = Math.max(size.width, size.height);
  const path = pathPoints(spot.path).map(({ x, y }) => ({ x: x * long, y: y * long }));
  const radius = spot.radius * long;
  const from = { x: spot.from.x * long, y: spot.from.y * long };
  const spread = Math.max(SPREAD * radius, LEAST_SPREAD);
  const away = radius + Math.max((RING - 1) * radius, LEAST_GAP);
  return cutInPieces(path, Math.max(PIECE_LENGTH * radius, LEAST_LENGTH)).map((points) => {
    const reach = away + SPREADS * spread + 1;
    const moved = points.map(({ x, y }) => ({ x: x + from.x, y: y + from.y }));
    return {
      spot,
      points,
      radius,
      from,
      ring: ringAround(points, path, away, Math.max(RING_SPACING * radius, LEAST_SPACING)),
      spread,
      area: areaAround(points, radius + 1, size),
      around: areaAround(points, reach, size),
      source: areaAround(moved, reach + 1, size),
    };
  });
}

/** A path in parts no longer than so much, each from where the one before it ends. */
function cutInPieces(path: readonly Point[], most: number): Point[][] {
  const pieces: Point[][] = [[path[0]!]];
  let length = 0;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!];
    const step = Math.hypot(b.x - a.x, b.y - a.y);
    const parts = Math.max(Math.ceil(step / most), 1);
    for (let k = 1; k <= parts; k++) {
      const last = pieces.at(-1)!;
      if (length + step / parts > most && last.length > 1) {
        pieces.push([last.at(-1)!]);
        length = 0;
      }
      pieces.at(-1)!.push({ x: a.x + (k / parts) * (b.x - a.x), y: a.y + (k / parts) * (b.y - a.y) });
      length += step / parts;
    }
  }
  return pieces;
}

/** Places at a distance from a piece, and nowhere nearer to the whole path, some way from one another. */
function ringAround(piece: readonly Point[], path: readonly Point[], away: number, spacing: number): Point[] {
  const ring: Point[] = [];
  for (const { x, y } of alongPoints(piece, spacing)) {
    for (let k = 0; k < DIRECTIONS; k++) {
      const turn = (2 * Math.PI * k) / DIRECTIONS;
      const place = { x: x + away * Math.cos(turn), y: y + away * Math.sin(turn) };
      if (ring.some((other) => Math.hypot(other.x - place.x, other.y - place.y) < 0.9 * spacing)) continue;
      if (distanceFrom(path, place) > 0.98 * away) ring.push(place);
    }
  }
  return ring;
}

function alongPoints(points: readonly Point[], spacing: number): Point[] {
  const out = [points[0]!];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const parts = Math.max(Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / spacing), 1);
    for (let k = 1; k <= parts; k++) out.push({ x: a.x + (k / parts) * (b.x - a.x), y: a.y + (k / parts) * (b.y - a.y) });
  }
  return out;
}
