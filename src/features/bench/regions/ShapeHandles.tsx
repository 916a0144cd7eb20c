"use client";
import { useMemo, useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";
import { boundaryOf } from "@/core/region/boundary";
import { contourOf } from "@/core/region/contour";
import { gridOf } from "@/core/spatial/grid";
import { middleOfShape, movedShape, turnedShape } from "@/core/region/moveShape";
import { hasFeather, MOST_FEATHER, type OutlineShape, type OvalShape, type Point, type Region, type Shape } from "@/core/region/region";
import { signedDistance } from "@/core/region/signedDistance";
import type { Size } from "@/core/spatial/areaReduce";
import { useBench, useBenchState } from "../state/BenchContext";
import { useOverPrint } from "@/features/picture-view/GeometryContext";
import { DragPoint, type MovedWith } from "../easel/DragPoint";
import { adjustRegion, adjustShape } from "./regionEdits";
import { SweepMarks } from "./SweepMarks";
import styles from "./RegionOverlay.module.css";

/** The handles of the chosen shape: its places, its inner and outer edge, its middle, and one that turns and scales. */
export function ShapeHandles({ region, size }: { region: Region; size: Size }) {
  const chosen = useBenchState((state) => state.chosenShape);
  const shape = region.shapes.find(({ id }) => id === chosen);
  if (!shape) return null;
  const long = Math.max(size.width, size.height);
  const common = { shape, long, regionName: region.name };
  const middle = middleOfShape(shape);
  return (
    <g data-testid="shape-handles">
      {hasFeather(shape) && <FeatherLines {...common} shape={shape} />}
      {shape.kind === "outline" && <CornerGrips {...common} shape={shape} />}
      {shape.kind === "oval" && <OvalGrips {...common} shape={shape} />}
      {shape.kind === "gradient" && (
        <>
          <line x1={shape.from.x * long} y1={shape.from.y * long} x2={shape.to.x * long} y2={shape.to.y * long} className={styles.guide} />
          {(["from", "to"] as const).map((end) => (
            <Grip
              key={end}
              {...common}
              at={shape[end]}
              name={end === "from" ? "Where the gradient acts fully" : "Where it acts no more"}
              move={(to) => ({ ...shape, [end]: to })}
            >
              <circle r={6} className={end === "from" ? styles.solid : styles.handle} />
            </Grip>
          ))}
        </>
      )}
      {shape.kind === "likeness" && <SweepMarks shape={shape} size={size} />}
      {middle && <MiddleGrip {...common} middle={middle} />}
      {middle && hasFeather(shape) && <TurnGrip {...common} middle={middle} />}
    </g>
  );
}

interface Common<S extends Shape = Shape> {
  shape: S;
  /** CSS pixels to the long edge. */
  long: number;
  regionName: string;
}

/** Something to take hold of; `move` tells what the shape becomes when it is brought to a place. */
function Grip({
  shape,
  long,
  regionName,
  at,
  name,
  move,
  onKey,
  onDoubleClick,
  children,
}: Common & {
  at: Point;
  name: string;
  move(to: Point, how: MovedWith): Shape | undefined;
  onKey?(event: KeyboardEvent): void;
  onDoubleClick?(): void;
  children: ReactNode;
}) {
  const { store } = useBench();
  const label = `Shape moved in ${regionName}`;
  return (
    <DragPoint
      long={long}
      at={at}
      name={name}
      onMove={(to, how) => {
        const changed = move(to, how);
        if (changed) adjustShape(store, shape.id, () => changed);
      }}
      onEnd={() => store.getState().commit(label)}
      onRest={() => store.getState().commitSoon(label)}
      onKey={onKey}
      onDoubleClick={onDoubleClick}
    >
      {children}
    </DragPoint>
  );
}

/** Moves the shape; with Shift all of the region, as one moves a spotlight. */
function MiddleGrip({ shape, middle, ...common }: Common & { middle: Point }) {
  const { store } = useBench();
  return (
    <Grip
      {...common}
      shape={shape}
      at={middle}
      name="Middle of the shape: move it; with Shift, the whole region"
      move={(to, how) => {
        const [dx, dy] = [to.x - middle.x, to.y - middle.y];
        if (!how.shift || how.byKey) return movedShape(shape, dx, dy);
        adjustRegion(store, (region) => ({ ...region, shapes: region.shapes.map((other) => movedShape(other, dx, dy)) }));
        return undefined;
      }}
    >
      <path d="M-7,0H7M0,-7V7" className={styles.middle} />
      <circle r={4} className={styles.handle} />
    </Grip>
  );
}

/** Turns and scales about the middle, from the shape as it was when it was taken hold of. */
function TurnGrip({ shape, middle, long, regionName }: Common & { middle: Point }) {
  const reach = reachOf(shape, middle) + 26 / long;
  const turn = shape.kind === "oval" ? (shape.turnDeg * Math.PI) / 180 : 0;
  const at = { x: middle.x + reach * Math.cos(turn), y: middle.y + reach * Math.sin(turn) };
  const start = useRef({ shape, at });
  const takeHold = () => (start.current = { shape, at });
  return (
    <g onPointerDownCapture={takeHold} onKeyDownCapture={takeHold}>
      <Grip
        shape={shape}
        long={long}
        regionName={regionName}
        at={at}
        name="Turn and scale the shape"
        move={(to) => {
          const from = start.current;
          const [x, y] = [to.x - middle.x, to.y - middle.y];
          const [fromX, fromY] = [from.at.x - middle.x, from.at.y - middle.y];
          const degrees = ((Math.atan2(y, x) - Math.atan2(fromY, fromX)) * 180) / Math.PI;
          return Math.hypot(x, y) < 0.01
            ? from.shape
            : turnedShape(from.shape, middle, degrees, Math.hypot(x, y) / Math.hypot(fromX, fromY));
        }}
      >
        <rect x={-5} y={-5} width={10} height={10} className={styles.handle} />
      </Grip>
    </g>
  );
}

function reachOf(shape: Shape, middle: Point): number {
  const beyond = hasFeather(shape) ? shape.outer : 0; // clear of the outer line
  if (shape.kind === "oval") return Math.max(shape.across, 0.01) + beyond;
  if (shape.kind === "outline") return Math.max(...shape.corners.map(({ x, y }) => Math.hypot(x - middle.x, y - middle.y))) + beyond;
  return 0.05;
}

function CornerGrips({ shape, long, regionName }: Common<OutlineShape>) {
  const { store } = useBench();
  const change = (corners: OutlineShape["corners"], label: string) => {
    adjustShape(store, shape.id, () => ({ ...shape, corners }));
    store.getState().commit(`${label} in ${regionName}`);
  };
  return shape.corners.map((corner, i) => (
    <Grip
      key={i}
      shape={shape}
      long={long}
      regionName={regionName}
      at={corner}
      name={`Corner ${i + 1}, ${corner.smooth ? "smooth" : "sharp"}: move it; double click makes it ${corner.smooth ? "sharp" : "smooth"}; Delete removes it`}
      move={(to) => ({ ...shape, corners: shape.corners.with(i, { ...corner, ...to }) })}
      onDoubleClick={() =>
        change(shape.corners.with(i, { ...corner, smooth: !corner.smooth }), corner.smooth ? "Corner sharp" : "Corner smooth")
      }
      onKey={(event) => {
        if (event.key !== "Delete" && event.key !== "Backspace") return;
        event.stopPropagation();
        if (shape.corners.length > 3) change(shape.corners.toSpliced(i, 1), "Corner removed");
      }}
    >
      {corner.smooth ? (
        <circle r={3.5} className={styles.handle} />
      ) : (
        <rect x={-3.5} y={-3.5} width={7} height={7} className={styles.handle} />
      )}
    </Grip>
  ));
}

function OvalGrips({ shape, long, regionName }: Common<OvalShape>) {
  const turn = (shape.turnDeg * Math.PI) / 180;
  const axes = [
    { key: "across", name: "Width of the oval", cos: Math.cos(turn), sin: Math.sin(turn) },
    { key: "down", name: "Height of the oval", cos: -Math.sin(turn), sin: Math.cos(turn) },
  ] as const;
  return axes.map(({ key, name, cos, sin }) => (
    <Grip
      key={key}
      shape={shape}
      long={long}
      regionName={regionName}
      at={{ x: shape.x + shape[key] * cos, y: shape.y + shape[key] * sin }}
      name={name}
      move={(to) => ({ ...shape, [key]: Math.max((to.x - shape.x) * cos + (to.y - shape.y) * sin, 0.004) })}
    >
      <circle r={4.5} className={styles.handle} />
    </Grip>
  ));
}

/** The lines at which the shape begins to fade and ends, to be dragged apart or together. */
function FeatherLines({ shape, long, regionName }: Common<OutlineShape | OvalShape>) {
  const { store } = useBench();
  const { pointAt } = useOverPrint();
  const held = useRef<"inner" | "outer" | undefined>(undefined);
  const paths = useMemo(() => linesOf(shape, long), [shape, long]);
  const drag = (which: "inner" | "outer") => ({
    onPointerDown: (event: PointerEvent<SVGPathElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = which;
    },
    onPointerMove: (event: PointerEvent<SVGPathElement>) => {
      if (held.current !== which) return;
      event.stopPropagation();
      const away = distanceTo(shape, pointAt(event));
      const reach = Math.min(Math.max(which === "inner" ? -away : away, 0), MOST_FEATHER);
      adjustShape(store, shape.id, (now) => (hasFeather(now) ? { ...now, [which]: reach } : now));
    },
    onLostPointerCapture: () => {
      held.current = undefined;
      store.getState().commit(`${which === "inner" ? "Inner" : "Outer"} edge in ${regionName}`);
    },
  });
  return (
    <>
      {(["inner", "outer"] as const).map((which) => (
        <g key={which} data-testid={`${which}-edge`}>
          <path d={paths[which]} className={styles.guide} />
          <path d={paths[which]} className={`${styles.reach} ${styles.inner}`} {...drag(which)}>
            <title>{which === "inner" ? "From here inwards it acts fully" : "From here outwards it acts no more"}</title>
          </path>
        </g>
      ))}
    </>
  );
}

/** How far a place lies outside a shape's contour, in long edges; negative inside. */
function distanceTo(shape: OutlineShape | OvalShape, { x, y }: Point): number {
  const scale = 4096;
  const grid = { ...gridOf({ width: 1, height: 1 }, x * scale - 0.5, y * scale - 0.5, { width: scale, height: scale }) };
  return signedDistance(boundaryOf(shape), grid, 2)[0]!;
}

/** The lines beside the contour, each place moved out or in along the normal there. */
function linesOf(shape: OutlineShape | OvalShape, long: number): Record<"inner" | "outer", string> {
  const line = contourOf(shape);
  const count = line.length / 2;
  const at = (i: number) => ({ x: line[2 * ((i + count) % count)]!, y: line[2 * ((i + count) % count) + 1]! });
  let area = 0;
  for (let i = 0; i < count; i++) area += at(i).x * at(i + 1).y - at(i + 1).x * at(i).y;
  const beside = (away: number) => {
    let path = "";
    for (let i = 0; i < count; i++) {
      const [before, here, after] = [at(i - 1), at(i), at(i + 1)];
      const [dx, dy] = [after.x - before.x, after.y - before.y];
      const by = (Math.sign(area) * away) / Math.max(Math.hypot(dx, dy), 1e-9);
      path += `${i === 0 ? "M" : "L"}${((here.x + dy * by) * long).toFixed(1)},${((here.y - dx * by) * long).toFixed(1)}`;
    }
    return `${path}Z`;
  };
  return { outer: beside(shape.outer), inner: beside(-shape.inner) };
}
