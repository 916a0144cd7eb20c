"use client";
import { useMemo } from "react";
import type { LikenessShape } from "@/core/region/region";
import type { Size } from "@/core/spatial/areaReduce";
import type { PixelPoint } from "@/core/units";
import { useBench } from "../state/BenchContext";
import { sweepsOf, type Side, type Sweep } from "./sweeps";
import { SIDE_WORDS, takeBackSweep } from "./sweepEdits";
import styles from "./RegionOverlay.module.css";

/**
 * Where a likeness was touched, dots along what is meant and crosses along what is not; at the end of each sweep it is taken back by a
 * press.
 */
export function SweepMarks({ shape, size }: { shape: LikenessShape; size: Size }) {
  const { store } = useBench();
  const long = Math.max(size.width, size.height);
  const sweeps = useMemo(() => sweepsOf(shape), [shape]);
  return sweeps.map((sweep) => (
    <g key={`${sweep.side} ${sweep.from}`} data-testid={`sweep-${sweep.side}`}>
      <path d={lineOf(sweep, long)} className={styles.halo} />
      <path d={lineOf(sweep, long)} className={styles.sweep} data-not={sweep.side === "not"} />
      <TakeBack at={besideEnd(sweep, size)} side={sweep.side} onTaken={() => takeBackSweep(store, shape, sweep)} />
    </g>
  ));
}

/** Beside the end of a sweep, in CSS pixels: the next one may begin where this ended. */
const BESIDE = 15;
/** And so far within the picture. */
const WITHIN = 10;

function besideEnd({ places }: Sweep, { width, height }: Size): PixelPoint {
  const long = Math.max(width, height);
  const [x, y] = [places.at(-1)!.x * long, places.at(-1)!.y * long];
  return { x: x + BESIDE + WITHIN > width ? x - BESIDE : x + BESIDE, y: y - BESIDE - WITHIN < 0 ? y + BESIDE : y - BESIDE };
}

function TakeBack({ at: { x, y }, side, onTaken }: { at: PixelPoint; side: Side; onTaken(): void }) {
  return (
    <g
      transform={`translate(${x},${y})`}
      className={styles.touch}
      role="button"
      tabIndex={0}
      aria-label={`Take back ${SIDE_WORDS[side].toLowerCase()} here`}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={onTaken}
      onKeyDown={(event) => {
        if (!["Enter", " ", "Delete", "Backspace"].includes(event.key)) return;
        event.preventDefault();
        event.stopPropagation();
        onTaken();
      }}
    >
      <circle r={12} className={styles.area} />
      <circle r={7} className={side === "not" ? styles.handle : styles.solid} />
      <path d="M-2.8,-2.8L2.8,2.8M2.8,-2.8L-2.8,2.8" className={styles.cross} data-not={side === "not"} />
    </g>
  );
}

/** A line through its places; of a single one, a dot. */
function lineOf({ places }: Sweep, long: number): string {
  const [first, ...rest] = places.map(({ x, y }) => `${(x * long).toFixed(1)},${(y * long).toFixed(1)}`);
  return `M${first}L${[...rest, first].slice(0, Math.max(rest.length, 1)).join("L")}`;
}
