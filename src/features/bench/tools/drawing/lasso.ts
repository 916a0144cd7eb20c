import { simplifyPath, simplifyPathTo } from "@/core/brush/simplifyPath";
import type { PathPoint } from "@/core/brush/stroke";
import { MOST_CORNERS, type Point } from "@/core/region/region";

/** A loop's corners stay this near to where the hand went, in long edges. */
const TOLERANCE = 0.0025;
/** A longer way is thinned to half of this as it grows: far below what is seen, unless it is a scribble. */
const MOST_POINTS = 4000;

/** Where a hand went round something. */
export interface Lasso {
  add(points: readonly Point[]): void;
  /** As few as tell the way, and no more than a shape holds. */
  points(): Point[];
}

export function lasso(from: Point): Lasso {
  const asPath = ({ x, y }: Point): PathPoint => ({ x, y, pressure: 1 });
  let way = [asPath(from)];
  let tolerance = TOLERANCE / 4;
  return {
    add(points) {
      for (const point of points) {
        way.push(asPath(point));
        if (way.length < MOST_POINTS) continue;
        // What a thinner way was not thin enough for will not be thin enough again.
        while (way.length > MOST_POINTS / 2) way = simplifyPath(way, (tolerance *= 1.5));
      }
    },
    points: () => simplifyPathTo(way, MOST_CORNERS, TOLERANCE).map(({ x, y }) => ({ x, y })),
  };
}
