"use client";
import { capital } from "@/features/shared/capital";
import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { HUE_STOPS_LIMIT, hueName, moveHueKnot, removeHueKnot, type HueKnot } from "@/core/mix/hueCurve";
import { formatStops } from "@/core/zones/zone";
import { useBench, useBenchState } from "../state/BenchContext";
import { seenPlan } from "../state/inPlan";
import { hueCss } from "./hueCss";
import styles from "./HueLine.module.css";
import type { Stops } from "@/core/units";

/** Steps of keys: stops upwards, degrees sideways. */
const KEY_STOPS = 0.05;
const KEY_DEGREES = 1;
const SHIFT_FACTOR = 10;
/** Snapping of a dragged knot, in stops; Alt suspends it. */
const SNAP_STOPS = 1 / 12;
const snapped = (stops: Stops) => Math.round(stops / SNAP_STOPS) * SNAP_STOPS;
const labelOf = (knot: HueKnot) => `${capital(hueName(knot.hueDeg))} ${formatStops(knot.stops)} in the mix`;

/** The knots of the hue line, to be dragged and moved by keys; each with a line down to its hue. */
export function HueKnots({
  x,
  y,
  bottom,
  placeOf,
}: {
  x(hueDeg: number): number;
  y(stops: Stops): number;
  bottom: number;
  placeOf(event: { clientX: number; clientY: number }): HueKnot;
}) {
  const { store } = useBench();
  const knots = useBenchState((state) => seenPlan(state).mix.hueKnots);
  const chosen = useBenchState((state) => state.chosenKnot);
  const [held, setHeld] = useState<{ index: number; grabbed: HueKnot; at: HueKnot }>();
  const change = (hueKnots: HueKnot[]) => store.getState().adjust((plan) => ({ ...plan, mix: { ...plan.mix, huesOn: true, hueKnots } }));
  const drag = (index: number) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      store.getState().set({ chosenKnot: index });
      setHeld({ index, grabbed: knots[index]!, at: placeOf(event) });
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (held?.index !== index) return;
      // Moved by as much as the pointer: what is grabbed beside its middle must not jump.
      const { hueDeg, stops } = placeOf(event);
      const reached = held.grabbed.stops + stops - held.at.stops;
      change(
        moveHueKnot(knots, index, {
          hueDeg: held.grabbed.hueDeg + hueDeg - held.at.hueDeg,
          stops: event.altKey ? reached : snapped(reached),
        }),
      );
    },
    onLostPointerCapture: () => {
      if (held === undefined) return;
      setHeld(undefined);
      const knot = store.getState().plan.mix.hueKnots[index];
      if (knot) store.getState().commit(labelOf(knot));
    },
    onDoubleClick: () => {
      change(moveHueKnot(knots, index, { ...knots[index]!, stops: 0 }));
      store.getState().commit(`${capital(hueName(knots[index]!.hueDeg))} back to 0 in the mix`);
    },
  });
  const onKeyDown = (index: number) => (event: KeyboardEvent) => {
    const knot = knots[index]!;
    const factor = event.shiftKey ? SHIFT_FACTOR : 1;
    const moves: Record<string, HueKnot> = {
      ArrowUp: { ...knot, stops: knot.stops + KEY_STOPS * factor },
      ArrowDown: { ...knot, stops: knot.stops - KEY_STOPS * factor },
      ArrowRight: { ...knot, hueDeg: knot.hueDeg + KEY_DEGREES * factor },
      ArrowLeft: { ...knot, hueDeg: knot.hueDeg - KEY_DEGREES * factor },
    };
    const moved = moves[event.key];
    if (moved) {
      const next = moveHueKnot(knots, index, moved);
      change(next);
      store.getState().commitSoon(labelOf(next[index]!));
    } else if (event.key === "Delete" || event.key === "Backspace") {
      change(removeHueKnot(knots, index));
      store.getState().set({ chosenKnot: undefined });
      store.getState().commit(`Knot at ${hueName(knot.hueDeg)} removed from the mix`);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <>
      {knots.map((knot, index) => (
        <g
          key={index}
          className={`${styles.knot} ${index === chosen ? styles.chosenKnot : ""}`}
          tabIndex={0}
          role="slider"
          aria-label={`${capital(hueName(knot.hueDeg))} knot`}
          aria-valuemin={-HUE_STOPS_LIMIT}
          aria-valuemax={HUE_STOPS_LIMIT}
          aria-valuenow={knot.stops}
          aria-valuetext={`${formatStops(knot.stops)} stops at ${Math.round(knot.hueDeg)} degrees`}
          data-testid={`knot-${index}`}
          onFocus={() => store.getState().set({ chosenKnot: index })}
          onKeyDown={onKeyDown(index)}
          {...drag(index)}
        >
          <line x1={x(knot.hueDeg)} x2={x(knot.hueDeg)} y1={y(knot.stops)} y2={bottom} />
          <circle className={styles.reach} cx={x(knot.hueDeg)} cy={y(knot.stops)} r={13} />
          <circle cx={x(knot.hueDeg)} cy={y(knot.stops)} r={index === chosen ? 8 : 6.5} fill={hueCss(knot.hueDeg)} />
          {index === chosen && (
            <text
              x={Math.min(x(knot.hueDeg) + 14, x(360) - 90)}
              y={y(knot.stops) + (knot.stops < -2 ? -8 : 4)}
            >{`${hueName(knot.hueDeg)} ${formatStops(knot.stops)}`}</text>
          )}
        </g>
      ))}
    </>
  );
}
