"use client";
import { useMemo } from "react";
import type { Region } from "@/core/region/region";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "../state/BenchContext";
import { chosenRegion, confinedInHand } from "../state/inPlan";
import { isDrawing } from "../tools/tools";
import { planeAreas } from "../easel/planeLines";
import { ShapeHandles } from "./ShapeHandles";
import { useSmallPlane } from "../easel/useSmallPlane";
import { useWorkingElsewhere } from "../state/useWorkingElsewhere";
import styles from "./RegionOverlay.module.css";

/** Where a region's edge begins, its middle, and where it acts fully. */
const LEVELS = [0.03, 0.5, 0.97] as const;

/** The region of the pass or set in hand over the picture: hatch, contour lines, and handles on the chosen shape. */
export function RegionOverlay({ size }: { size: Size }) {
  const plan = useBenchState((state) => state.plan);
  const step = useBenchState((state) => state.step);
  const shows = useBenchState((state) => state.showsRegion);
  const look = useBenchState((state) => state.look.kind);
  const corners = useBenchState((state) => state.drawing.corners);
  const isConfined = confinedInHand({ plan, step }) !== undefined;
  const region = chosenRegion({ plan, step });
  const isWorking = useWorkingElsewhere();
  const isSeen = shows && isConfined && !isWorking && (look === "picture" || look === "stepped" || look === "colour");
  if (!isSeen) return null;
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="region-overlay">
      {region && <Contours region={region} size={size} />}
      {region && <ShapeHandles region={region} size={size} />}
      {corners.length > 0 && <Draft size={size} />}
    </svg>
  );
}

function Contours({ region, size }: { region: Region; size: Size }) {
  const plan = useBenchState((state) => state.plan);
  // Only what the region's place depends on: a move of another kind leaves its lines alone.
  const { mix } = plan;
  const own = useMemo(() => ({ ...plan, mix, regions: [region], passes: [], sets: [] }), [mix, region]); // eslint-disable-line react-hooks/exhaustive-deps
  const found = useSmallPlane(own, { region: region.id });
  const tool = useBenchState((state) => state.tool);
  const paths = useMemo(() => {
    if (!found) return undefined;
    return planeAreas(
      found,
      LEVELS.map((level) => level * region.density),
      size,
    );
  }, [found, region.density, size.width, size.height]); // eslint-disable-line react-hooks/exhaustive-deps
  if (!paths) return null;
  return (
    <g data-testid="contours">
      <defs>
        <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className={styles.hatch} />
        </pattern>
      </defs>
      {!isDrawing(tool) && <path d={paths[1]} fill="url(#hatch)" />}
      {paths.map((path, i) => (
        <path key={i} d={path} className={i === 1 ? styles.middle : styles.edge} />
      ))}
    </g>
  );
}

/** A polygon that is not closed yet. */
function Draft({ size }: { size: Size }) {
  const corners = useBenchState((state) => state.drawing.corners);
  const long = Math.max(size.width, size.height);
  return (
    <g>
      <polyline points={corners.map(({ x, y }) => `${x * long},${y * long}`).join(" ")} className={styles.draft} />
      {corners.map(({ x, y }, i) => (
        <circle key={i} cx={x * long} cy={y * long} r={i === 0 ? 6 : 3.5} className={styles.handle} />
      ))}
    </g>
  );
}
