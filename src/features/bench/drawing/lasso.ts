import { simplifyPath } from "@/core/brush/simplifyPath";
import type { PathPoint } from "@/core/brush/stroke";
import { MOST_CORNERS, type Point } from "@/core/region/region";

/** A loop's corners stay this near to where the hand went, in long edges. */
const TOLERANCE = 0.0025;
/** A longer way is thinned as it grows, far below what is seen. */
const MOST_POINTS = 2000;

/** Where a hand went round something. */
export interface Lasso {
  add(points: readonly Point[]): void;
  /** As few as tell the way, and no more than a shape holds. */
  points(): Point[];
}

export function lasso(from: Point): Lasso {
  const asPath = ({ x, y }: Point): PathPoint => ({ x, y, pressure: 1 });
  let way = [asPath(from)];
  return {
    add(points) {
      for (const point of points) way.push(asPath(point));
      if (way.length > MOST_POINTS) way = simplifyPath(way, TOLERANCE / 4);
    },
    points() {
      for (let tolerance = TOLERANCE; ; tolerance *= 1.5) {
        const kept = simplifyPath(way, tolerance);
        if (kept.length <= MOST_CORNERS) return kept.map(({ x, y }) => ({ x, y }));
      }
    },
  };
}
