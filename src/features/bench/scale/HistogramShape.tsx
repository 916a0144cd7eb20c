import { area, curveBasis } from "d3";
import { memo, useMemo } from "react";
import { LAST_ZONE } from "@/core/zones/zone";
import { HISTOGRAM_BINS, zoneShares } from "@/core/zones/zoneShares";
import type { StageHistograms } from "@/engine/stage/stageTypes";
import { useBenchState } from "../state/BenchContext";
import { formatShare } from "../easel/formatShare";
import type { X } from "./scaleGeometry";
import styles from "./Scale.module.css";

/** Points drawn of a histogram, and the share of bins that may rise over the top. */
const POINTS = 100;
const CLIPPED_SHARE = 0.97;

/** How the tones of the picture lie along a rail. */
export const HistogramShape = memo(function HistogramShape({
  of,
  x,
  base,
  height,
}: {
  of: keyof StageHistograms;
  x: X;
  base: number;
  height: number;
}) {
  const counts = useBenchState((state) => state.measured?.[of]);
  const path = useMemo(() => {
    if (!counts) return "";
    const bins = HISTOGRAM_BINS / POINTS;
    const sums = Array.from({ length: POINTS }, (_, i) => counts.subarray(i * bins, (i + 1) * bins).reduce((sum, count) => sum + count, 0));
    const top = sums.toSorted((a, b) => a - b)[Math.floor(POINTS * CLIPPED_SHARE)]! || 1;
    const shape = area<number>()
      .x((_, i) => x(((i + 0.5) / POINTS) * LAST_ZONE))
      .y0(base)
      .y1((sum) => base + height * Math.min(sum / top, 1.15))
      .curve(curveBasis);
    return shape(sums) ?? "";
  }, [counts, x, base, height]);
  return <path d={path} className={styles.histogram} />;
});

/** The share of the picture in each zone, under a rail. */
export const Shares = memo(function Shares({ of, x, y }: { of: keyof StageHistograms; x: X; y: number }) {
  const counts = useBenchState((state) => state.measured?.[of]);
  if (!counts) return null;
  return (
    <g className={styles.shares} data-testid="shares">
      {zoneShares(counts).map((share, zone) => (
        <text key={zone} x={x(zone === 0 ? 0.25 : zone === LAST_ZONE ? LAST_ZONE - 0.25 : zone)} y={y}>
          {formatShare(share)}
        </text>
      ))}
    </g>
  );
});
