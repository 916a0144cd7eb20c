import type { Point } from "../region/region";
import type { Size } from "../spatial/areaReduce";

/** A rectangle of whole pixels. */
export interface Area extends Size {
  x: number;
  y: number;
}

/** What two areas have in common; of no width or height where that is nothing. */
export function common(a: Area, b: Area): Area {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.max(Math.min(a.x + a.width, b.x + b.width) - x, 0);
  return { x, y, width, height: width && Math.max(Math.min(a.y + a.height, b.y + b.height) - y, 0) };
}

export function meet(a: Area, b: Area): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

export function holds(outer: Area, inner: Area): boolean {
  const { x, y, width, height } = common(outer, inner);
  return x === inner.x && y === inner.y && width === inner.width && height === inner.height;
}

/** The pixels within a reach of some places, as far as they are in a picture; one at least. */
export function areaAround(places: readonly Point[], reach: number, { width, height }: Size): Area {
  const side = (of: (place: Point) => number, end: number) => {
    const within = (at: number) => Math.min(Math.max(Math.floor(at), 0), end - 1);
    const [first, last] = [within(least(places, of) - reach), within(-least(places, (place) => -of(place)) + reach)];
    return { first, length: last - first + 1 };
  };
  const [across, down] = [side(({ x }) => x, width), side(({ y }) => y, height)];
  return { x: across.first, y: down.first, width: across.length, height: down.length };
}

function least(places: readonly Point[], of: (place: Point) => number): number {
  return places.reduce((found, place) => Math.min(found, of(place)), Infinity);
}
