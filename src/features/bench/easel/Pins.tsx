"use client";
import { MOST_PINS } from "@/contracts/api";
import type { PixelPoint } from "@/core/units";
import type { Size } from "@/core/spatial/areaReduce";
import type { Place } from "@/engine/messages/messages";
import { useBenchState, type Bench } from "../state/BenchContext";
import { placeOnPrint } from "@/features/picture-view/geometry";
import { useOverPrint } from "@/features/picture-view/GeometryContext";
import styles from "./Pins.module.css";

/** A press this near a pin takes it away, in CSS pixels. */
const TAKEN_WITHIN = 12;

/** Sets a pin at a place, or takes away the one that is there; `shown` is the whole picture in CSS pixels. */
export function togglePin(bench: Bench, place: Place, shown: Size): void {
  const { pins } = bench.store.getState();
  const there = pins.findIndex(({ x, y }) => Math.hypot((x - place.x) * shown.width, (y - place.y) * shown.height) < TAKEN_WITHIN);
  if (there < 0 && pins.length >= MOST_PINS) {
    return bench.store.getState().set({ failure: `${MOST_PINS} pins are as many as can be kept. Take one away first.` });
  }
  setPins(bench, there < 0 ? [...pins, place] : pins.toSpliced(there, 1));
}

/** Keeps pins with the print. They are no part of the plan: undo leaves them alone. */
export function setPins({ start, store }: Bench, pins: readonly Place[]): void {
  store.getState().set({ pins });
  void fetch(`/api/prints/${start.print.id}`, {
    method: "PATCH",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ pins }),
    keepalive: true,
  })
    .then((response) => response.ok)
    .catch(() => false)
    .then((isKept) => {
      if (!isKept) store.getState().set({ failure: "The pins could not be saved just now; they stay as long as this page is open." });
    });
}

/** The pins over the print, numbered. */
export function Pins() {
  const pins = useBenchState((state) => state.pins);
  const { geometry } = useOverPrint();
  return pins.map((pin, i) => (
    <span
      key={`${pin.x} ${pin.y}`}
      className={styles.pin}
      style={leftTop(placeOnPrint(geometry, pin))}
      data-testid={`pin-${i + 1}`}
      aria-hidden
    >
      {i + 1}
    </span>
  ));
}

const leftTop = ({ x, y }: PixelPoint) => ({ left: x, top: y });
