"use client";
import type { Confined } from "@/core/passes/pass";
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { gateShare, MOST_SHOULDER, type Gate } from "@/core/gate/gate";
import { confinedById, withGate } from "@/core/plan/editRegions";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { useBench } from "../state/BenchContext";
import { RAIL, TOP, type X } from "./scaleGeometry";
import { keyStep } from "./keyStep";
import { snapZone } from "./snapZone";
import styles from "./Scale.module.css";
import type { Zone } from "@/core/units";

const HEIGHT = 26;
const STEPS = 160;
const ENDS = ["low", "from", "to", "high"] as const;
type End = (typeof ENDS)[number];
const NAMES: Record<End, string> = {
  low: "Foot of the lower shoulder",
  from: "Lower end of the gate",
  to: "Upper end of the gate",
  high: "Foot of the upper shoulder",
};

/** The gate as a hill on the upper rail: its shoulders are dragged by top and foot, the hill as a whole by its body. */
export function GateHill({ of, gate, x, zoneAt }: { of: Confined; gate: Gate; x: X; zoneAt(event: { clientX: number }): number }) {
  const { store } = useBench();
  const { adjust, commit, commitSoon } = store.getState();
  /** Where a part was taken hold of; an end is carried by that, so that it does not jump to the pointer. */
  const held = useRef<{ end: End | "body"; from: number; start: Gate } | undefined>(undefined);
  const change = (changed: Gate) => adjust((plan) => withGate(plan, of.id, changed));
  const label = () => {
    const now = confinedById(store.getState().plan, of.id)?.gate;
    return now ? `Gate ${formatZone(now.from)} to ${formatZone(now.to)} in ${of.name}` : `Gate of ${of.name}`;
  };
  const base = TOP - RAIL;
  const drag = (end: End | "body") => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { end, from: zoneAt(event), start: gate };
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      const hold = held.current;
      if (hold?.end !== end) return;
      const by = zoneAt(event) - hold.from;
      if (by === 0) return;
      if (end === "body") return change(shifted(hold.start, by));
      const zone = placeOf(hold.start, end) + by;
      change(movedEnd(gate, end, event.altKey ? zone : snapZone(zone)));
    },
    onLostPointerCapture: () => {
      if (!held.current) return;
      held.current = undefined;
      commit(label());
    },
  });
  const onKey = (end: End) => (event: KeyboardEvent) => {
    const by = keyStep(event, placeOf(gate, end));
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    change(movedEnd(gate, end, placeOf(gate, end) + by));
    commitSoon(label());
  };
  return (
    <g className={styles.gate} data-testid="gate">
      <path d={hill(gate, x, base)} className={styles.hill} {...drag("body")}>
        <title>Drag to take other tones</title>
      </path>
      {ENDS.map((end) => {
        const zone = placeOf(gate, end);
        const isFoot = end === "low" || end === "high";
        return (
          <g
            key={end}
            transform={`translate(${x(Math.min(Math.max(zone, 0), LAST_ZONE))},${isFoot !== gate.invert ? base - 3 : base - HEIGHT})`}
            className={styles.handle}
            role="slider"
            tabIndex={0}
            aria-label={NAMES[end]}
            aria-valuemin={0}
            aria-valuemax={LAST_ZONE}
            aria-valuenow={zone}
            aria-valuetext={formatZone(zone)}
            data-testid={`gate-${end}`}
            onKeyDown={onKey(end)}
            {...drag(end)}
          >
            <circle r={9} className={styles.reach} />
            {isFoot ? (
              <path d="M-5,3H5L0,-5Z" className={styles.gateGrip} />
            ) : (
              <rect x={-4} y={-4} width={8} height={8} className={styles.gateGrip} />
            )}
          </g>
        );
      })}
    </g>
  );
}

function placeOf({ from, to, low, high }: Gate, end: End): number {
  return { low: from - low, from, to, high: to + high }[end];
}

/** A gate with one of its places moved; the tops carry their feet along, and do not pass each other. */
function movedEnd(gate: Gate, end: End, zone: Zone): Gate {
  const bounded = Math.min(Math.max(zone, 0), LAST_ZONE);
  switch (end) {
    case "low":
      return { ...gate, low: Math.min(Math.max(gate.from - zone, 0), MOST_SHOULDER) };
    case "high":
      return { ...gate, high: Math.min(Math.max(zone - gate.to, 0), MOST_SHOULDER) };
    case "from":
      return { ...gate, from: Math.min(bounded, gate.to) };
    case "to":
      return { ...gate, to: Math.max(bounded, gate.from) };
  }
}

function shifted(gate: Gate, by: number): Gate {
  const moved = Math.min(Math.max(by, -gate.from), LAST_ZONE - gate.to);
  return { ...gate, from: gate.from + moved, to: gate.to + moved };
}

function hill(gate: Gate, x: X, base: number): string {
  let path = `M${x(0)},${base}`;
  for (let i = 0; i <= STEPS; i++) {
    const zone = (i / STEPS) * LAST_ZONE;
    path += `L${x(zone).toFixed(1)},${(base - HEIGHT * gateShare(gate, zone)).toFixed(1)}`;
  }
  return `${path}L${x(LAST_ZONE)},${base}Z`;
}
