import { packPath, unpackPath, type PathPoint } from "../brush/stroke";
import type { Point } from "../region/region";
import type { ExposureStroke } from "./exposure";

/** The points of a stroke's way. */
export function wayOf({ path }: Pick<ExposureStroke, "path">): PathPoint[] {
  const numbers = unpackPath(path);
  return Array.from({ length: numbers.length / 3 }, (_, i) => ({
    x: numbers[3 * i]!,
    y: numbers[3 * i + 1]!,
    pressure: numbers[3 * i + 2]!,
  }));
}

/** How far a place lies from a stroke's way. Units: long edges. */
function distanceToWay(way: readonly PathPoint[], { x, y }: Point): number {
  let least = Math.hypot(way[0]!.x - x, way[0]!.y - y);
  for (let i = 1; i < way.length; i++) {
    const [a, b] = [way[i - 1]!, way[i]!];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const length2 = dx * dx + dy * dy;
    const u = length2 > 0 ? Math.min(Math.max(((x - a.x) * dx + (y - a.y) * dy) / length2, 0), 1) : 0;
    least = Math.min(least, Math.hypot(x - a.x - u * dx, y - a.y - u * dy));
  }
  return least;
}

/** The stroke touched at a place: of those that reach it, the one whose way lies nearest, the newest of equals. Undefined where none does. */
export function strokeAt(strokes: readonly ExposureStroke[], place: Point): number | undefined {
  let [nearest, found] = [Infinity, undefined as number | undefined];
  strokes.forEach((stroke, i) => {
    const away = distanceToWay(wayOf(stroke), place);
    if (away <= stroke.radius && away <= nearest) [nearest, found] = [away, i];
  });
  return found;
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
export function movedStroke(stroke: ExposureStroke, dx: number, dy: number): ExposureStroke {
  return { ...stroke, path: packPath(wayOf(stroke).map(({ x, y, pressure }) => ({ x: x + dx, y: y + dy, pressure }))) };
}
