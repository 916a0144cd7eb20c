"use client";
import { useId, useState, type KeyboardEvent, type PointerEvent } from "react";
import { hueName } from "@/core/mix/hueCurve";
import { MOST_TINT_CHROMA } from "@/core/passes/tint/move";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { useBench, useBenchState } from "../../state/BenchContext";
import type { OnScaleProps } from "../passFace";
import { BOTTOM, TOP } from "../../scale/scaleGeometry";
import { keyStep } from "../../scale/keyStep";
import { snapZone } from "../../scale/snapZone";
import { changePoint, formatAmount, pointInHand, pointLabel, removePoint } from "./tintEdits";
import { tintPlaces } from "./tintCss";
import styles from "./Tint.module.css";

const MIDDLE = (TOP + BOTTOM) / 2;
/** Half the height of the fullest colour. */
const FULLEST = (BOTTOM - TOP) / 2 - 3;

/** Faint colours are what tints are made of: heights grow as the root. */
const heightOf = (chroma: number) => FULLEST * Math.sqrt(Math.min(chroma / MOST_TINT_CHROMA, 1));

/** The colour laid on each zone, as thick as it is strong, with its points to drag along the zones. */
export function TintOnScale({ pass, move, x, zoneAt }: OnScaleProps<"tint">) {
  const { store } = useBench();
  const chosen = pointInHand(
    move,
    useBenchState((state) => state.chosenPoint),
  );
  const [held, setHeld] = useState<{ index: number; offset: number }>();
  const fill = useId();
  const places = tintPlaces(move.points);
  const edge = (side: 1 | -1) =>
    places.map(({ zone, chroma }) => `${x(zone).toFixed(1)},${(MIDDLE - side * heightOf(Math.hypot(chroma.a, chroma.b))).toFixed(1)}`);
  const drag = (index: number) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      store.getState().set({ chosenPoint: index });
      setHeld({ index, offset: move.points[index]!.zone - zoneAt(event) });
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (held?.index !== index) return;
      const reached = zoneAt(event) + held.offset;
      changePoint(store, pass, index, { zone: event.altKey ? reached : snapZone(reached) });
    },
    onLostPointerCapture: () => {
      if (!held) return;
      setHeld(undefined);
      store.getState().commit(pointLabel(store, pass, index));
    },
  });
  const onKeyDown = (index: number) => (event: KeyboardEvent) => {
    const by = keyStep(event, move.points[index]!.zone);
    if (by !== undefined) {
      changePoint(store, pass, index, { zone: move.points[index]!.zone + by });
      store.getState().commitSoon(pointLabel(store, pass, index));
    } else if (event.key === "Delete" || event.key === "Backspace") removePoint(store, pass, index);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g data-testid="tint-line">
      <linearGradient id={fill}>
        {places.map(({ zone, css }) => (
          <stop key={zone} offset={zone / LAST_ZONE} stopColor={css} />
        ))}
      </linearGradient>
      <path d={`M${[...edge(1), ...edge(-1).reverse()].join("L")}Z`} fill={`url(#${fill})`} className={styles.band} />
      {move.points.map((point, index) => {
        const words = `${hueName(point.hueDeg)} ${formatAmount(point.chroma)} at ${formatZone(point.zone)}`;
        return (
          <g
            key={index}
            className={`${styles.point} ${index === chosen ? styles.chosen : ""}`}
            transform={`translate(${x(point.zone)},${MIDDLE})`}
            tabIndex={0}
            role="slider"
            aria-label={`Point ${index + 1} of the tint, ${words}`}
            aria-valuemin={0}
            aria-valuemax={LAST_ZONE}
            aria-valuenow={point.zone}
            aria-valuetext={words}
            data-testid={`tint-point-${index}`}
            onFocus={() => store.getState().set({ chosenPoint: index })}
            onKeyDown={onKeyDown(index)}
            {...drag(index)}
          >
            <line y1={-FULLEST} y2={FULLEST} className={styles.stem} />
            <rect x={-11} y={-FULLEST} width={22} height={2 * FULLEST} className={styles.reach} />
            <rect x={-5} y={-5} width={10} height={10} transform="rotate(45)" className={styles.head} />
          </g>
        );
      })}
    </g>
  );
}
