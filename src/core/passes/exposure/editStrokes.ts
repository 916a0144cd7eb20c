import type { ExposureStroke } from "../../steps/placedStops";
import { distanceFrom, pathPoints } from "../../brush/path";
import { simplifyPath } from "../../brush/simplifyPath";
import { packPath, type PathPoint } from "../../brush/stroke";
import type { Point } from "../../region/region";
import type { Length } from "../../units";

/**
 * The stroke touched at a place: of those that reach it, the one whose way lies nearest, the newest of equals. Undefined where none does.
 */
export function strokeAt(strokes: readonly ExposureStroke[], place: Point): number | undefined {
  let [nearest, found] = [Infinity, undefined as number | undefined];
  strokes.forEach((stroke, i) => {
    const away = distanceFrom(pathPoints(stroke.path), place);
    if (away <= stroke.radius && away <= nearest) [nearest, found] = [away, i];
  });
  return found;
}

/** The strokes that reach any of some places, by number. Units: places in long edges. */
export function strokesReaching(strokes: readonly ExposureStroke[], places: readonly Point[]): number[] {
  return strokes.flatMap((stroke, i) => {
    const way = pathPoints(stroke.path);
    return places.some((place) => distanceFrom(way, place) <= stroke.radius) ? [i] : [];
  });
}

/** A stroke laid on more softly: its edge wider, its reach a little, and built up more gently, as dabs on dabs grow steep. */
export function softenedStroke(stroke: ExposureStroke): ExposureStroke {
  return {
    ...stroke,
    hardness: stroke.hardness < 0.05 ? 0 : stroke.hardness / 2,
    radius: Math.min(WIDER * stroke.radius, MOST_RADIUS),
    flow: GENTLER * stroke.flow,
  };
}
const WIDER = 1.2;
const GENTLER = 0.7;
const MOST_RADIUS = 1;

/**
 * Strokes with what of their ways lies within a loop cut out; what is left of a stroke goes on as strokes of their own. Strokes that
 * erase stay, and so do those that `isMeant` leaves out.
 */
export function clearedWithin(
  strokes: readonly ExposureStroke[],
  loop: readonly Point[],
  isMeant: (stroke: ExposureStroke) => boolean,
): ExposureStroke[] {
  return strokes.flatMap((stroke) => {
    if (stroke.erase || !isMeant(stroke)) return [stroke];
    const way = pathPoints(stroke.path);
    const pieces = piecesOutside(way, loop);
    if (pieces.length === 1 && pieces[0] === way) return [stroke];
    return pieces.map((piece) => ({ ...stroke, path: packPath(piece) }));
  });
}

/** Longest step along a way when it is looked where it crosses a loop, in long edges. */
const CUT_STEP = 0.002;

/** The parts of a way outside a loop; the way itself where none of it lies within. */
function piecesOutside(way: readonly PathPoint[], loop: readonly Point[]): (readonly PathPoint[])[] {
  const fine = way.flatMap((to, i) => {
    const from = way[i - 1];
    if (!from) return [to];
    const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / CUT_STEP));
    return Array.from({ length: steps }, (_, k) => between(from, to, (k + 1) / steps));
  });
  const isOut = fine.map((point) => !isWithin(point, loop));
  if (isOut.every(Boolean)) return [way];
  const pieces: PathPoint[][] = [];
  fine.forEach((point, i) => {
    if (!isOut[i]) return;
    if (i === 0 || !isOut[i - 1]) pieces.push([point]);
    else pieces.at(-1)!.push(point);
  });
  return pieces.map((piece) => simplifyPath(piece, CUT_STEP / 5));
}

function between(a: PathPoint, b: PathPoint, part: number): PathPoint {
  return { x: a.x + part * (b.x - a.x), y: a.y + part * (b.y - a.y), pressure: a.pressure + part * (b.pressure - a.pressure) };
}

/** Whether a loop goes round a place, however often: by its winding number, as outlines of regions are filled. */
function isWithin({ x, y }: Point, loop: readonly Point[]): boolean {
  let winding = 0;
  loop.forEach((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    if (a.y > y === b.y > y || x >= a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) return;
    winding += b.y > a.y ? 1 : -1;
  });
  return winding !== 0;
}

/** Some of the strokes changed, the others the very same. */
export function withStrokes(
  strokes: readonly ExposureStroke[],
  picked: ReadonlySet<number>,
  change: (stroke: ExposureStroke) => ExposureStroke,
): ExposureStroke[] {
  return strokes.map((stroke, i) => (picked.has(i) ? change(stroke) : stroke));
}

/** A stroke moved. Units: long edges. */
export function movedStroke(stroke: ExposureStroke, dx: Length, dy: Length): ExposureStroke {
  return { ...stroke, path: packPath(pathPoints(stroke.path).map(({ x, y, pressure }) => ({ x: x + dx, y: y + dy, pressure }))) };
}
