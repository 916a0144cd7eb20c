"use client";
import type { PassOf } from "@/core/passes/pass";
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { hueName } from "@/core/mix/hueCurve";
import { MOST_TINT_CHROMA, type TintMove } from "@/core/passes/tint/move";
import { chromaOfHue, hueOfChroma } from "@/core/passes/tint/tintLine";
import { formatZone } from "@/core/zones/zone";
import { hueCss } from "../../scale/hueCss";
import { useBench, useBenchState } from "../../state/BenchContext";
import { changePoint, formatAmount, pointInHand, pointLabel } from "./tintEdits";
import styles from "./Tint.module.css";

/** Radius of the ring, in CSS pixels. */
const RADIUS = 66;
const TURN_STEP = 2;
const AMOUNT_STEP = 0.002;
const COARSE = 5;

/** Hues around, counter-clockwise as their angle grows, while CSS goes clockwise from the right. */
const AROUND = `conic-gradient(from 90deg, ${Array.from({ length: 25 }, (_, k) => hueCss(360 - 15 * k)).join(", ")})`;

/** Faint colours have most of the room: the way from the middle grows as the root of the amount. */
function placeOf({ hueDeg, chroma }: { hueDeg: number; chroma: number }) {
  const { a, b } = chromaOfHue({ hueDeg, chroma: RADIUS * Math.sqrt(chroma / MOST_TINT_CHROMA) });
  return { left: RADIUS + a, top: RADIUS - b };
}

/** The points of a tint by hue and amount; one is dragged, or turned and moved by the arrows. */
export function HueRing({ pass, move }: { pass: PassOf<"tint">; move: TintMove }) {
  const { store } = useBench();
  const ring = useRef<HTMLDivElement>(null);
  const chosen = pointInHand(
    move,
    useBenchState((state) => state.chosenPoint),
  );
  const held = useRef(false);
  const point = move.points[chosen]!;
  const pull = (event: PointerEvent) => {
    const { left, top } = ring.current!.getBoundingClientRect();
    const { hueDeg, chroma: way } = hueOfChroma({ a: event.clientX - left - RADIUS, b: RADIUS - (event.clientY - top) });
    changePoint(store, pass, chosen, { hueDeg, chroma: MOST_TINT_CHROMA * Math.min(way / RADIUS, 1) ** 2 });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.shiftKey ? COARSE : 1;
    const turn = { ArrowLeft: TURN_STEP, ArrowRight: -TURN_STEP }[event.key];
    const grow = { ArrowUp: AMOUNT_STEP, ArrowDown: -AMOUNT_STEP }[event.key];
    if (turn === undefined && grow === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    changePoint(store, pass, chosen, { hueDeg: point.hueDeg + by * (turn ?? 0), chroma: point.chroma + by * (grow ?? 0) });
    store.getState().commitSoon(pointLabel(store, pass, chosen));
  };
  const words = `${hueName(point.hueDeg)}, ${Math.round(point.hueDeg)}°, amount ${formatAmount(point.chroma)}`;
  return (
    <div
      ref={ring}
      className={styles.wheel}
      style={{ width: 2 * RADIUS, height: 2 * RADIUS, backgroundImage: `var(--fade-to-grey), ${AROUND}` }}
      role="slider"
      tabIndex={0}
      aria-label={`Hue and amount of the point at ${formatZone(point.zone)}`}
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuenow={Math.round(point.hueDeg)}
      aria-valuetext={words}
      data-testid="hue-ring"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
        pull(event);
      }}
      onPointerMove={(event) => held.current && pull(event)}
      onLostPointerCapture={() => {
        if (!held.current) return;
        held.current = false;
        store.getState().commit(pointLabel(store, pass, chosen));
      }}
    >
      {move.points.map((other, index) => (
        <span key={index} className={`${styles.dot} ${index === chosen ? styles.chosenDot : ""}`} style={placeOf(other)} />
      ))}
    </div>
  );
}
