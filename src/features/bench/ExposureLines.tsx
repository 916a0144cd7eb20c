"use client";
import { contours, geoPath, geoTransform } from "d3";
import { useMemo } from "react";
import type { Pass } from "@/core/plan/plan";
import type { Size } from "@/core/spatial/areaReduce";
import { formatStops } from "@/core/zones/zone";
import { useBenchState } from "./BenchContext";
import { useSmallPlane } from "./useSmallPlane";
import styles from "./RegionOverlay.module.css";

/** Lines at every third of a stop, up to this many to either side. */
const MOST_THIRDS = 9;

/** What is painted in an exposure pass as contour lines in thirds of a stop; light is drawn fine, dark heavy. */
export function ExposureLines({ pass, size }: { pass: Pass; size: Size }) {
  const plan = useBenchState((state) => state.plan);
  const own = useMemo(() => ({ ...plan, regions: [], passes: [{ ...pass, region: null }], sets: [] }), [pass]); // eslint-disable-line react-hooks/exhaustive-deps
  const found = useSmallPlane(own, { exposure: pass.id });
  const lines = useMemo(() => {
    if (!found) return [];
    const { plane, width, height } = found;
    const [x, y] = [size.width / width, size.height / height];
    const toScreen = geoTransform({
      point(px, py) {
        this.stream.point(px * x, py * y);
      },
    });
    const draw = geoPath(toScreen);
    const thirds = Array.from({ length: MOST_THIRDS }, (_, i) => (i + 1) / 3);
    const lay = (values: number[], sign: number) =>
      contours()
        .size([width, height])
        .thresholds(thirds)(values)
        .flatMap((line) => {
          const path = draw(line);
          return path ? [{ path, stops: sign * line.value }] : [];
        });
    return [
      ...lay(Array.from(plane), 1),
      ...lay(
        Array.from(plane, (stops) => -stops),
        -1,
      ),
    ];
  }, [found, size.width, size.height]);
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="exposure-lines">
      {lines.map(({ path, stops }) => (
        <path key={stops} d={path} className={styles.stops} data-burns={stops < 0}>
          <title>{formatStops(stops)}</title>
        </path>
      ))}
    </svg>
  );
}
