"use client";
import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";
import type { Point } from "@/core/region/region";
import { moveOnPicture } from "@/features/picture-view/geometry";
import { useOverPrint } from "@/features/picture-view/GeometryContext";
import styles from "../regions/RegionOverlay.module.css";

const NUDGE = 0.002;
const COARSE_NUDGE = 0.02;
const REACH = 11;

/** With what a thing was moved. */
export interface MovedWith {
  shift: boolean;
  byKey: boolean;
}

/** Something on the picture to take hold of, by pointer or arrow keys. Units: places in long edges, `long` in CSS pixels. */
export function DragPoint({
  long,
  at,
  name,
  onMove,
  onEnd,
  onRest,
  onKey,
  onDoubleClick,
  reach = REACH,
  children,
}: {
  long: number;
  at: Point;
  name: string;
  onMove(to: Point, how: MovedWith): void;
  /** The hand has let go. */
  onEnd(): void;
  /** A key has moved it: the end cannot be seen. */
  onRest(): void;
  onKey?: ((event: KeyboardEvent) => void) | undefined;
  onDoubleClick?: (() => void) | undefined;
  /** How near a press must be, in CSS pixels. */
  reach?: number;
  children: ReactNode;
}) {
  const held = useRef<{ x: number; y: number; at: Point } | undefined>(undefined);
  const { geometry } = useOverPrint();
  const movedBy = (from: Point, x: number, y: number): Point => {
    const by = moveOnPicture(geometry, { x, y });
    return { x: from.x + by.x, y: from.y + by.y };
  };
  const place = (event: PointerEvent): Point => {
    const { x, y, at: from } = held.current!;
    return movedBy(from, event.clientX - x, event.clientY - y);
  };
  return (
    <g
      transform={`translate(${at.x * long},${at.y * long})`}
      className={styles.grip}
      role="button"
      tabIndex={0}
      aria-label={name}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { x: event.clientX, y: event.clientY, at };
      }}
      onPointerMove={(event) => {
        if (!held.current) return; // the easel reads the place
        event.stopPropagation();
        onMove(place(event), { shift: event.shiftKey, byKey: false });
      }}
      onLostPointerCapture={() => {
        held.current = undefined;
        onEnd();
      }}
      onDoubleClick={(event) => {
        event.stopPropagation();
        onDoubleClick?.();
      }}
      onKeyDown={(event) => {
        const by = long * (event.shiftKey ? COARSE_NUDGE : NUDGE);
        const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.key];
        if (!step) return onKey?.(event);
        event.preventDefault();
        event.stopPropagation();
        onMove(movedBy(at, step[0]!, step[1]!), { shift: event.shiftKey, byKey: true });
        onRest();
      }}
    >
      <circle r={reach} className={styles.area} fill="transparent" />
      {children}
    </g>
  );
}
