import type { Point } from "@/core/region/region";

/**
 * A line around a way at a distance, with round ends, as an SVG path; around a single place a circle. Bends are cut rather than rounded.
 */
export function outlineAround(points: readonly Point[], away: number): string {
  const along = points.filter((point, i) => i === 0 || point.x !== points[i - 1]!.x || point.y !== points[i - 1]!.y);
  const first = along[0]!;
  const arc = (to: Point) => `A${written(away)},${written(away)} 0 0 1 ${place(to)}`;
  if (along.length === 1) {
    const [left, right] = [shifted(first, -away, 0), shifted(first, away, 0)];
    return `M${place(left)}${arc(right)}${arc(left)}Z`;
  }
  const side = (sign: number) =>
    along.map((point, i) => {
      const [a, b] = [along[Math.max(i - 1, 0)]!, along[Math.min(i + 1, along.length - 1)]!];
      const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      return shifted(point, (sign * away * (b.y - a.y)) / length, (-sign * away * (b.x - a.x)) / length);
    });
  const [left, right] = [side(1), side(-1).reverse()];
  return `M${left.map(place).join("L")}${arc(right[0]!)}L${right.map(place).join("L")}${arc(left[0]!)}Z`;
}

const shifted = ({ x, y }: Point, dx: number, dy: number): Point => ({ x: x + dx, y: y + dy });
const written = (length: number) => length.toFixed(2);
const place = ({ x, y }: Point) => `${written(x)},${written(y)}`;
