"use client";
import { memo } from "react";
import type { Point } from "@/core/region/region";
import { pathPoints } from "@/core/brush/path";
import { drawnOf, type Spot } from "@/core/spots/spot";
import type { Size } from "@/core/spatial/areaReduce";
import { DragPoint } from "../easel/DragPoint";
import { useBench, useBenchState } from "../state/BenchContext";
import { moveSource, moveSpot } from "./spotEdits";
import { outlineAround } from "./outlineAround";
import { useSpotSources } from "./useSpotSources";
import styles from "./SpotsOverlay.module.css";

/** How near a press must be to take hold of a spot by its middle, in CSS pixels. */
const LEAST_REACH = 4;
const MOST_REACH = 11;

/** Rings on the spots, each with a thread to where it takes from; drawn in the picture's own places, while spots are in hand. */
export function SpotsOverlay({ size }: { size: Size }) {
  useSpotSources();
  const isOn = useBenchState((state) => state.step.stage === "spots");
  return isOn ? <Rings size={size} /> : null;
}

function Rings({ size }: { size: Size }) {
  const spots = useBenchState((state) => state.plan.spots);
  const chosen = useBenchState((state) => state.chosenSpot);
  const drawn = useBenchState((state) => state.drawnSpot);
  const uncovered = useBenchState((state) => state.uncovered);
  const takesFrom = useBenchState((state) => state.spotting.takesFrom);
  const long = Math.max(size.width, size.height);
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="spots">
      {spots.map((spot) =>
        spot.id === chosen ? <ChosenSpot key={spot.id} spot={spot} long={long} /> : <SpotRing key={spot.id} spot={spot} long={long} />,
      )}
      {uncovered.map(({ spot }) => (
        <Outline key={`new ${spot.id}`} spot={spot} long={long} className={styles.waiting} />
      ))}
      {drawn && <Outline spot={drawn} long={long} className={styles.waiting} />}
      {takesFrom && <path className={styles.source} d={`M${takesFrom.x * long - 7},${takesFrom.y * long}h14m-7,-7v14`} />}
    </svg>
  );
}

/** Spots that did not change are not drawn again when another one moves. */
const SpotRing = memo(function SpotRing({ spot, long }: { spot: Spot; long: number }) {
  return (
    <g className={styles.spot}>
      <Thread spot={spot} long={long} />
      <Outline spot={spot} long={long} className={styles.ring} />
    </g>
  );
});

function ChosenSpot({ spot, long }: { spot: Spot; long: number }) {
  const { store } = useBench();
  const at = pathPoints(spot.path)[0]!;
  const source = { x: at.x + spot.from.x, y: at.y + spot.from.y };
  // On a whole picture a spot and what it takes from are near each other.
  const reach = Math.min(Math.max(spot.radius * long, LEAST_REACH), MOST_REACH);
  const { commit, commitSoon } = store.getState();
  return (
    <g className={styles.chosen}>
      <Thread spot={spot} long={long} />
      <Outline spot={spot} long={long} className={styles.ring} />
      <Outline spot={spot} long={long} by={spot.from} className={styles.source} />
      <DragPoint
        long={long}
        reach={reach}
        at={source}
        name="Where it takes from: move it"
        onMove={(to) => moveSource(store, to)}
        onEnd={() => commit("Where a spot takes from")}
        onRest={() => commitSoon("Where a spot takes from")}
      >
        <rect x={-3} y={-3} width={6} height={6} className={styles.middle} />
      </DragPoint>
      <DragPoint
        long={long}
        reach={reach}
        at={at}
        name="The spot: move it"
        onMove={(to) => moveSpot(store, to)}
        onEnd={() => commit("Spot moved")}
        onRest={() => commitSoon("Spot moved")}
      >
        <circle r={2.5} className={styles.middle} />
      </DragPoint>
    </g>
  );
}

/** From the border of a spot to that of what it takes from. */
function Thread({ spot, long }: { spot: Spot; long: number }) {
  const { path, from } = spot;
  const { size: radius } = drawnOf(spot);
  const { x, y } = pathPoints(path)[0]!;
  const length = Math.hypot(from.x, from.y);
  if (length <= 2 * radius) return null;
  const [u, v] = [(radius * from.x) / length, (radius * from.y) / length];
  return (
    <path
      className={styles.thread}
      d={line(
        [
          { x: x + u, y: y + v },
          { x: x + from.x - u, y: y + from.y - v },
        ],
        long,
      )}
    />
  );
}

/** A line round what a spot covers all of: a ring, or both sides of a scratch. */
function Outline({ spot, long, by = { x: 0, y: 0 }, className }: OutlineProps) {
  const { size: radius } = drawnOf(spot);
  const points = pathPoints(spot.path).map(({ x, y }) => ({ x: (x + by.x) * long, y: (y + by.y) * long }));
  return <path className={className} d={outlineAround(points, Math.max(radius * long, 2))} />;
}

interface OutlineProps {
  spot: Spot;
  long: number;
  /** How far away from the spot it lies, in long edges. */
  by?: Point;
  className: string | undefined;
}

function line(points: readonly Point[], long: number): string {
  return `M${points.map(({ x, y }) => `${(x * long).toFixed(2)},${(y * long).toFixed(2)}`).join("L")}`;
}
