import { smoothStep } from "../curves/smoothStep";
import type { Grid } from "../spatial/grid";

/** How far distances from a dab's middle count towards each border of the frame: less than 1 where it goes on beyond it. */
export interface TowardsFrame {
  left: number;
  right: number;
  up: number;
  down: number;
}

const UNMOVED: TowardsFrame = { left: 1, right: 1, up: 1, down: 1 };

/**
 * A dab whose middle is nearer to the frame than half its radius goes on to it as strong as it is; from a radius away it ends as anywhere.
 *
 * Units   cx, cy and reach in pixels, counted from the middle of the grid's first; 0–1 out.
 */
export function towardsFrame({ x, y, whole, scale, moved }: Grid, cx: number, cy: number, reach: number): TowardsFrame {
  const [left, up] = [cx + 0.5 + x + (moved?.x ?? 0) * scale, cy + 0.5 + y + (moved?.y ?? 0) * scale];
  const [right, down] = [whole.width - left, whole.height - up];
  if (Math.min(left, right, up, down) >= reach) return UNMOVED;
  const counts = (depth: number) => (depth < 0 ? 1 : smoothStep(2 * (depth / reach) - 1));
  return { left: counts(left), right: counts(right), up: counts(up), down: counts(down) };
}
