"use client";
import type { Pass } from "@/core/passes/pass";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { MOST_STOPS, withZoneStops } from "@/core/passes/exposure/exposure";
import { passInSet } from "@/core/plan/editPasses";
import type { ExposureMove } from "@/core/passes/exposure/move";
import { formatStops, LAST_ZONE, zoneNumeral } from "@/core/zones/zone";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { BOTTOM, TOP, type X } from "../../scale/scaleGeometry";
import styles from "../../scale/Scale.module.css";
import type { Zone } from "@/core/units";

const MIDDLE = (TOP + BOTTOM) / 2;
const PIXELS_PER_STOP = 24;
/** The marks stay between the rails however large the amount. */
const MOST_RISE = 24;
const STEP = 1 / 12;

/** Stops for each zone as marks between the rails: up is lighter, down darker. */
export function ZoneAmounts({ pass, move, x }: { pass: Pass; move: ExposureMove; x: X }) {
  const { store } = useBench();
  const held = useRef<{ zone: Zone; y: number; start: number } | undefined>(undefined);
  const [refused, setRefused] = useState<number>();
  const set = (zone: Zone, wanted: number) => {
    const { plan, adjust } = store.getState();
    const now = plan.passes.find(({ id }) => id === pass.id)?.move;
    if (now?.kind !== "exposure") return;
    const reached = withZoneStops(now, zone, wanted, passInSet(plan, pass).strength);
    setRefused(Math.abs(reached.zones[zone]! - wanted) > STEP / 2 && Math.abs(wanted) <= MOST_STOPS ? zone : undefined);
    adjust((current) => withMove(current, pass.id, { ...now, ...reached }));
  };
  const label = (zone: Zone) => {
    const now = store.getState().plan.passes.find(({ id }) => id === pass.id)?.move;
    const stops = now?.kind === "exposure" ? now.zones[zone]! : 0;
    return `Zone ${zoneNumeral(zone)} ${formatStops(stops)} in ${pass.name}`;
  };
  const onKeyDown = (zone: Zone) => (event: KeyboardEvent) => {
    const by = { ArrowUp: STEP, ArrowDown: -STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    set(zone, Math.round((move.zones[zone]! + by * (event.shiftKey ? 4 : 1)) / STEP) * STEP);
    store.getState().commitSoon(label(zone));
  };
  return (
    <g data-testid="zone-amounts">
      <path d={`M${x(0)},${MIDDLE}H${x(LAST_ZONE)}`} className={styles.levelLine} />
      {move.zones.map((stops, zone) => {
        const rise = Math.min(Math.max(stops * PIXELS_PER_STOP, -MOST_RISE), MOST_RISE);
        return (
          <g
            key={zone}
            transform={`translate(${x(zone)},${MIDDLE - rise})`}
            className={styles.handle}
            role="slider"
            tabIndex={0}
            aria-orientation="vertical"
            aria-label={`Stops for Zone ${zoneNumeral(zone)}`}
            aria-valuemin={-MOST_STOPS}
            aria-valuemax={MOST_STOPS}
            aria-valuenow={stops}
            aria-valuetext={formatStops(stops)}
            data-testid={`amount-${zone}`}
            onKeyDown={onKeyDown(zone)}
            onPointerDown={(event: PointerEvent<SVGGElement>) => {
              if (event.button !== 0) return;
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              held.current = { zone, y: event.clientY, start: stops };
            }}
            onPointerMove={(event) => {
              const hold = held.current;
              if (hold?.zone !== zone) return;
              const wanted = hold.start + (hold.y - event.clientY) / PIXELS_PER_STOP;
              set(zone, event.altKey ? wanted : Math.round(wanted / STEP) * STEP);
            }}
            onLostPointerCapture={() => {
              if (!held.current) return;
              held.current = undefined;
              setRefused(undefined);
              store.getState().commit(label(zone));
            }}
            onDoubleClick={() => {
              set(zone, 0);
              store.getState().commit(label(zone));
            }}
          >
            <circle r={11} className={styles.reach} />
            {stops < 0 ? <circle r={5.5} className={styles.solid} /> : <circle r={5.5} className={styles.ring} />}
            {stops !== 0 && (
              <text className={styles.amount} y={rise > 0 ? -9 : 17}>
                {formatStops(stops)}
              </text>
            )}
          </g>
        );
      })}
      {refused !== undefined && (
        <text className={styles.strain} x={x(LAST_ZONE / 2)} y={TOP + 12} data-testid="amount-held">
          {`Zone ${zoneNumeral(refused)} is held: more would reverse the order of tones beside it`}
        </text>
      )}
    </g>
  );
}
