import type { BenchStore } from "../state/benchStore";
import { sizeSpot } from "../spots/spotEdits";
import { isExposing } from "./tools";

/** A key makes the brush this much larger or smaller. */
export const BRUSH_STEP = 1.15;
export const LEAST_BRUSH = 0.002;
export const MOST_BRUSH = 0.5;

/** Makes the brush larger or smaller, within what it can be. */
export function sizeBrush(store: BenchStore, factor: number): void {
  const { tool, drawing, exposing, set } = store.getState();
  if (tool === "spot") return sizeSpot(store, factor);
  const sized = <B extends { radius: number }>(brush: B): B => ({
    ...brush,
    radius: Math.min(Math.max(brush.radius * factor, LEAST_BRUSH), MOST_BRUSH),
  });
  set(isExposing(tool) ? { exposing: sized(exposing) } : { drawing: sized(drawing) });
}
