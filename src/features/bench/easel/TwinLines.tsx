"use client";
import { useMemo } from "react";
import type { Twins } from "@/core/mix/twins";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "../state/BenchContext";
import { planeAreas } from "./planeLines";
import { useSmallPlane } from "./useSmallPlane";
import styles from "../regions/RegionOverlay.module.css";

/** How far a place must be of an area to be lit. */
const LIT = 0.3;

/** The pair of twins that is pointed at, over the picture: one hatched one way, the other the other way. */
export function TwinLines({ size }: { size: Size }) {
  const lit = useBenchState((state) => state.litTwins);
  return lit ? <Lit twins={lit} size={size} /> : null;
}

function Lit({ twins, size }: { twins: Twins; size: Size }) {
  const plan = useBenchState((state) => state.plan);
  const found = useSmallPlane(plan, { twins });
  const paths = useMemo(() => {
    if (!found) return [];
    return [1, -1].map((sign) => planeAreas({ ...found, plane: found.plane.map((v) => sign * v) }, [LIT], size)[0] ?? "");
  }, [found, size.width, size.height]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="twin-lines">
      <defs>
        {[45, -45].map((angle, i) => (
          <pattern key={angle} id={`twin-${i}`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform={`rotate(${angle})`}>
            <line x1="0" y1="0" x2="0" y2="7" className={styles.hatch} />
          </pattern>
        ))}
      </defs>
      {paths.map((path, i) => (
        <g key={i}>
          <path d={path} fill={`url(#twin-${i})`} />
          <path d={path} className={styles.middle} />
        </g>
      ))}
    </svg>
  );
}
