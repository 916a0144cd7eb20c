"use client";
import { useEffect, useRef, type RefObject } from "react";
import { useBenchState } from "../state/BenchContext";
import { isExposing } from "../tools/tools";
import styles from "./Easel.module.css";

/**
 * The brush at its true size under the pointer: where it ends, and within which it acts fully; dashed where it erases. An open
 * ring in its middle dodges, a filled one burns.
 */
export function BrushCursor({ easel, long }: { easel: RefObject<HTMLElement | null>; long: number }) {
  const tool = useBenchState((state) => state.tool);
  const spotting = useBenchState((state) => state.spotting);
  const brush = useBenchState((state) => (isExposing(state.tool) ? state.exposing : state.drawing));
  const { radius, hardness } = tool === "spot" ? { radius: spotting.radius, hardness: 1 - spotting.softness } : brush;
  const erase = useBenchState((state) => state.drawing.erase && state.tool !== "spot");
  const mark = useRef<SVGSVGElement>(null);
  useEffect(() => {
    const host = easel.current!;
    const follow = (event: PointerEvent) => {
      const bounds = host.getBoundingClientRect();
      const isOver = (event.target as Element).closest("canvas") !== null || host.hasPointerCapture(event.pointerId);
      mark.current!.style.visibility = isOver ? "visible" : "hidden";
      mark.current!.style.transform = `translate(${event.clientX - bounds.left}px, ${event.clientY - bounds.top}px)`;
    };
    const leave = () => (mark.current!.style.visibility = "hidden");
    host.addEventListener("pointermove", follow);
    host.addEventListener("pointerleave", leave);
    return () => {
      host.removeEventListener("pointermove", follow);
      host.removeEventListener("pointerleave", leave);
    };
  }, [easel]);
  return (
    <svg ref={mark} className={styles.brush} data-erase={erase} aria-hidden>
      <circle r={Math.max(radius * long, 2)} />
      <circle r={radius * hardness * long} className={styles.brushCore} />
      {isExposing(tool) ? <circle r={4} className={tool === "burn" ? styles.burn : undefined} /> : <path d="M-3,0H3M0,-3V3" />}
    </svg>
  );
}
