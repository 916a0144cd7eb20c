"use client";
import { useMemo } from "react";
import { pathPoints } from "@/core/brush/path";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "../../state/BenchContext";
import { chosenPass } from "../../state/inPlan";
import styles from "../../regions/RegionOverlay.module.css";

/** Strokes drawn at the most: the newest. */
const MOST_DRAWN = 600;

/** The ways of the strokes of the exposure in hand, to be picked: dodging fine, burning heavy, picked ones bright. */
export function StrokeMarks({ size }: { size: Size }) {
  const move = useBenchState((state) => chosenPass(state)?.pass.move);
  const picked = useBenchState((state) => state.pickedStrokes);
  const long = Math.max(size.width, size.height);
  const strokes = move?.kind === "exposure" ? move.strokes : undefined;
  const paths = useMemo(
    () =>
      (strokes ?? []).map((stroke) => {
        const points = pathPoints(stroke.path).map(({ x, y }) => `${(x * long).toFixed(1)},${(y * long).toFixed(1)}`);
        return `M${points.length > 1 ? points.join("L") : `${points[0]}h0.1`}`;
      }),
    [strokes, long],
  );
  if (!strokes) return null;
  const first = Math.max(0, strokes.length - MOST_DRAWN);
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="stroke-marks">
      {strokes.slice(first).map((stroke, i) => {
        const index = first + i;
        const isPicked = picked.includes(index);
        return (
          <path
            key={index}
            d={paths[index]}
            className={styles.stroke}
            data-burns={stroke.burns}
            data-erase={stroke.erase}
            data-picked={isPicked}
          />
        );
      })}
    </svg>
  );
}
