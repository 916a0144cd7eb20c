import type { PathPoint } from "./stroke";
import type { Length } from "../units";

/**
 * The fewest of a way's points that keep every other within `tolerance` of the lines between them, pressure included.
 *
 * Units   tolerance in long edges; a whole step of pressure counts as ten tolerances.
 * Source  Ramer (1972), Douglas & Peucker (1973).
 */
export function simplifyPath(points: readonly PathPoint[], tolerance: Length): PathPoint[] {
  if (points.length < 3) return [...points];
  const kept = new Uint8Array(points.length);
  kept[0] = kept[points.length - 1] = 1;
  const stretches: [number, number][] = [[0, points.length - 1]];
  for (let stretch = stretches.pop(); stretch; stretch = stretches.pop()) {
    const [from, to] = stretch;
    let [furthest, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const away = distanceToLine(points[i]!, points[from]!, points[to]!, 10 * tolerance);
      if (away > furthest) [furthest, at] = [away, i];
    }
    if (at < 0) continue;
    kept[at] = 1;
    stretches.push([from, at], [at, to]);
  }
  return points.filter((_, i) => kept[i]);
}

/**
 * The same on at most `most` points (2 or more): the tolerance grows by a half until they suffice.
 *
 * Units   tolerance in long edges, more than 0.
 */
export function simplifyPathTo(points: readonly PathPoint[], most: number, tolerance: number): PathPoint[] {
  let kept = simplifyPath(points, tolerance);
  for (let wider = tolerance * 1.5; kept.length > most; wider *= 1.5) kept = simplifyPath(kept, wider);
  return kept;
}

function distanceToLine(p: PathPoint, a: PathPoint, b: PathPoint, pressureScale: number): number {
  const [dx, dy, dp] = [b.x - a.x, b.y - a.y, pressureScale * (b.pressure - a.pressure)];
  const [px, py, pp] = [p.x - a.x, p.y - a.y, pressureScale * (p.pressure - a.pressure)];
  const length2 = dx * dx + dy * dy + dp * dp;
  const u = length2 > 0 ? Math.min(Math.max((px * dx + py * dy + pp * dp) / length2, 0), 1) : 0;
  const [x, y, z] = [px - u * dx, py - u * dy, pp - u * dp];
  return Math.sqrt(x * x + y * y + z * z); // several times as quick as hypot
}
