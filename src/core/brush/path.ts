import { unpackPath, type PathPoint } from "./stroke";

/** A place, in whatever units its path is in. */
interface Place {
  x: number;
  y: number;
}

/** The points of a packed path. Units: long edges. Errors: CoreError `bad_path`. */
export function pathPoints(path: string): PathPoint[] {
  const numbers = unpackPath(path);
  return Array.from({ length: numbers.length / 3 }, (_, i) => ({
    x: numbers[3 * i]!,
    y: numbers[3 * i + 1]!,
    pressure: numbers[3 * i + 2]!,
  }));
}

/** The distance of a place from a line through points, or from the only one. */
export function distanceFrom(points: readonly Place[], { x, y }: Place): number {
  const first = points[0]!;
  if (points.length === 1) return Math.hypot(x - first.x, y - first.y);
  let nearest = Infinity;
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!;
    const b = points[i]!;
    const dx = b.x - a.x;
    const dy = b.y - a.y;
    const along = Math.min(Math.max(((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1), 0), 1);
    const ox = x - a.x - along * dx;
    const oy = y - a.y - along * dy;
    nearest = Math.min(nearest, ox * ox + oy * oy);
  }
  return Math.sqrt(nearest);
}
