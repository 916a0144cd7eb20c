import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Point } from "@/core/region/region";
import type { Size } from "@/core/spatial/areaReduce";
import { areaAround } from "@/core/spots/area";
import { spotPieces } from "@/core/spots/pieces";
import { FARTHEST_SOURCE, proposeSource } from "@/core/spots/proposeSource";
import type { Spot } from "@/core/spots/spot";
import { decodeLevels } from "../source/decoded";
import type { LevelFetcher } from "../source/levelFetcher";
import { Spotted } from "../source/spotted";

/** So fine at least, in pixels of a spot's radius, if the picture is, it is looked for where to take from. */
const FINE = 5;
/** What surrounds the farthest place, in radii. */
const MARGIN = 3;
/** Where none is proposed, it is taken from so many radii beside. */
const BESIDE = 3;

/**
 * Where to take from to cover a spot, as far away as lies in the picture; the others of the plan are covered already, and not from where it
 * was tried. Units: long edges.
 */
export async function spotSource(
  { levels }: PreparedPicture,
  fetcher: LevelFetcher,
  spot: Spot,
  { others, tried }: { others: readonly Spot[]; tried: readonly Point[] },
  signal: AbortSignal,
): Promise<Point> {
  const index = Math.max(
    levels.findLastIndex((level) => spot.radius * longOf(level) >= FINE),
    0,
  );
  const level = levels[index]!;
  const pieces = spotPieces(spot, level);
  const points = [...pieces.map(({ points: [first] }) => first!), pieces.at(-1)!.points.at(-1)!];
  const { radius } = pieces[0]!;
  const area = areaAround(points, (FARTHEST_SOURCE + MARGIN) * radius, level);
  const { levels: stored, grain } = await fetcher.read({ level: index, ...area }, signal);
  const pixels = { area, ...decodeLevels({ levels: stored, space: level.space, grain }, area) };
  new Spotted([pixels], level).heal(others);
  const away = tried.map(({ x, y }) => ({ x: x * longOf(level), y: y * longOf(level) }));
  const by = proposeSource(pixels, { points: pieces.flatMap((piece) => piece.points), radius, kind: spot.kind }, away);
  return by ? wholePixels(by, level, levels[0]!) : beside(points, radius, level);
}

const longOf = ({ width, height }: Size) => Math.max(width, height);

/** A way on a level as whole pixels of the full size, so that there no pixel lies between two. */
function wholePixels({ x, y }: Point, level: Size, full: Size): Point {
  const scale = longOf(full) / longOf(level);
  return { x: Math.round(x * scale) / longOf(full), y: Math.round(y * scale) / longOf(full) };
}

function beside(points: readonly Point[], radius: number, { width, height }: Size): Point {
  const ways = [
    { x: BESIDE * radius, y: 0 },
    { x: -BESIDE * radius, y: 0 },
    { x: 0, y: BESIDE * radius },
    { x: 0, y: -BESIDE * radius },
  ];
  const isInside = (way: Point) => points.every(({ x, y }) => x + way.x >= 0 && y + way.y >= 0 && x + way.x < width && y + way.y < height);
  const { x, y } = ways.find(isInside) ?? ways[0]!;
  return { x: x / longOf({ width, height }), y: y / longOf({ width, height }) };
}
