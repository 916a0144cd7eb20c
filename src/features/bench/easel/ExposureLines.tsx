"use client";
import type { Pass } from "@/core/passes/pass";
import { useMemo } from "react";
import type { Size } from "@/core/spatial/areaReduce";
import { formatStops } from "@/core/zones/zone";
import { useBenchState } from "../state/BenchContext";
import { planeLines } from "./planeLines";
import { useSmallPlane } from "./useSmallPlane";
import styles from "../regions/RegionOverlay.module.css";

/** Lines at every third of a stop, up to this many to either side. */
const THIRDS = Array.from({ length: 9 }, (_, i) => (i + 1) / 3);

/** The stops a pass gives to places as contour lines in thirds of a stop; light is drawn fine, dark heavy. */
export function ExposureLines({ pass, size }: { pass: Pass; size: Size }) {
  const plan = useBenchState((state) => state.plan);
  const own = useMemo(() => ({ ...plan, regions: [], passes: [{ ...pass, region: null }], sets: [] }), [pass]); // eslint-disable-line react-hooks/exhaustive-deps
  const found = useSmallPlane(own, { exposure: pass.id });
  const lines = useMemo(() => {
    if (!found) return [];
    return [1, -1].flatMap((sign) => {
      const plane = found.plane.map((stops) => sign * stops);
      return planeLines({ ...found, plane }, THIRDS, size).flatMap((path, i) => (path ? [{ path, stops: sign * THIRDS[i]! }] : []));
    });
  }, [found, size.width, size.height]); // eslint-disable-line react-hooks/exhaustive-deps
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
