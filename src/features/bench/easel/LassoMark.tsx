"use client";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "../state/BenchContext";
import styles from "../regions/RegionOverlay.module.css";

/** The loop that is being drawn. */
export function LassoMark({ size }: { size: Size }) {
  const lasso = useBenchState((state) => state.lasso);
  if (lasso.length < 2) return null;
  const long = Math.max(size.width, size.height);
  return (
    <svg className={styles.overlay} width={size.width} height={size.height}>
      <polygon points={lasso.map(({ x, y }) => `${x * long},${y * long}`).join(" ")} className={styles.draft} />
    </svg>
  );
}
