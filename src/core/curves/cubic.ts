/** A place of a curve. */
export interface CurvePoint {
  x: number;
  y: number;
}

/**
 * The slope at a point between two stretches that keeps both without a wiggle: the weighted harmonic mean of their secants, level where
 * they turn.
 *
 * Source  Fritsch & Butland (1984).
 */
export function slopeBetween(left: number, right: number, widthLeft: number, widthRight: number): number {
  if (left * right <= 0) return 0;
  const weightLeft = 2 * widthRight + widthLeft;
  const weightRight = widthRight + 2 * widthLeft;
  return (weightLeft + weightRight) / (weightLeft / left + weightRight / right);
}

/** A cubic between two points with a slope at each. Source: Fritsch & Carlson (1980). */
export function hermite(a: CurvePoint, b: CurvePoint, slopeA: number, slopeB: number, x: number): number {
  const width = b.x - a.x;
  const s = (x - a.x) / width;
  const u = 1 - s;
  return u * u * ((1 + 2 * s) * a.y + s * width * slopeA) + s * s * ((1 + 2 * u) * b.y - u * width * slopeB);
}

/** A smooth curve through points in order of x, level at its ends and where it turns; between two points it never leaves their values. */
export function curveThrough(points: readonly CurvePoint[]): (x: number) => number {
  const last = points.length - 1;
  const secant = (i: number) => (points[i + 1]!.y - points[i]!.y) / width(i);
  const width = (i: number) => points[i + 1]!.x - points[i]!.x;
  const slopes = points.map((_, i) => (i === 0 || i === last ? 0 : slopeBetween(secant(i - 1), secant(i), width(i - 1), width(i))));
  return (x) => {
    if (x <= points[0]!.x) return points[0]!.y;
    if (x >= points[last]!.x) return points[last]!.y;
    let i = 0;
    while (x > points[i + 1]!.x) i++;
    return hermite(points[i]!, points[i + 1]!, slopes[i]!, slopes[i + 1]!, x);
  };
}
