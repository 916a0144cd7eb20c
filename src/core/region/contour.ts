import type { Corner, GradientShape, OutlineShape, OvalShape, Point } from "./region";

/** Straight pieces of an oval: its line errs by 0.05 % of its size, half of it to either side. */
const OVAL_PIECES = 96;
const OVAL_SWELL = 1 + Math.PI ** 2 / OVAL_PIECES ** 2 / 4;
/** Straight pieces between two corners, if one of them is smooth. */
const CURVE_PIECES = 12;

/** The closed line of a shape as straight pieces: x and y of each corner, in long edges. */
export function contourOf(shape: OutlineShape | OvalShape): Float64Array {
  return shape.kind === "oval" ? ovalContour(shape) : outlineContour(shape.corners);
}

function ovalContour({ x, y, across, down, turnDeg }: OvalShape): Float64Array {
  const line = new Float64Array(2 * OVAL_PIECES);
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  for (let i = 0; i < OVAL_PIECES; i++) {
    const turn = (2 * Math.PI * i) / OVAL_PIECES;
    const [u, v] = [OVAL_SWELL * across * Math.cos(turn), OVAL_SWELL * down * Math.sin(turn)];
    line[2 * i] = x + u * cos - v * sin;
    line[2 * i + 1] = y + u * sin + v * cos;
  }
  return line;
}

/** Cubic Hermite pieces through the corners; a smooth one takes the direction from its neighbour before to the one after. */
function outlineContour(corners: readonly Corner[]): Float64Array {
  const line: number[] = [];
  corners.forEach((a, i) => {
    const [before, b, after] = [corners.at(i - 1)!, corners[(i + 1) % corners.length]!, corners[(i + 2) % corners.length]!];
    line.push(a.x, a.y);
    if (!a.smooth && !b.smooth) return;
    const leaving = a.smooth ? half(before, b) : between(a, b);
    const arriving = b.smooth ? half(a, after) : between(a, b);
    for (let k = 1; k < CURVE_PIECES; k++) line.push(...hermite(a, leaving, b, arriving, k / CURVE_PIECES));
  });
  return Float64Array.from(line);
}

function between(a: Point, b: Point): Point {
  return { x: b.x - a.x, y: b.y - a.y };
}

function half(a: Point, b: Point): Point {
  return { x: (b.x - a.x) / 2, y: (b.y - a.y) / 2 };
}

function hermite(a: Point, leaving: Point, b: Point, arriving: Point, u: number): [number, number] {
  const [u2, u3] = [u * u, u * u * u];
  const [h00, h10, h01, h11] = [2 * u3 - 3 * u2 + 1, u3 - 2 * u2 + u, -2 * u3 + 3 * u2, u3 - u2];
  return [h00 * a.x + h10 * leaving.x + h01 * b.x + h11 * arriving.x, h00 * a.y + h10 * leaving.y + h01 * b.y + h11 * arriving.y];
}

/** Steeper than this a gradient is a step: its length in long edges. */
const LEAST_LENGTH = 1e-6;

/**
 * How far along a gradient a place lies, 0 at its beginning and 1 at its end: start + across · x + down · y. One without length is a step,
 * everything before it.
 */
export function gradientAlong({ from, to }: Pick<GradientShape, "from" | "to">): { start: number; across: number; down: number } {
  let [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  if (length < LEAST_LENGTH) [dx, dy] = length > 0 ? [(dx / length) * LEAST_LENGTH, (dy / length) * LEAST_LENGTH] : [0, 0];
  const length2 = Math.max(dx * dx + dy * dy, LEAST_LENGTH ** 2);
  const [across, down] = [dx / length2, dy / length2];
  return { start: -(across * from.x + down * from.y), across, down };
}
