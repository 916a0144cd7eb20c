import type { Before, BenchStore } from "../state/benchStore";

/** A press shorter than this, in milliseconds, stays until the next one. */
const TAP_MS = 300;

/** A key or button goes down: what the print is compared with is shown, or, where it is shown already, the print again. */
export function pressBefore(store: BenchStore, before: Before): void {
  const { before: shown, set } = store.getState();
  if (shown === before) set({ before: undefined, beforeSince: undefined });
  else set({ before, beforeSince: performance.now() });
}

/** It comes up: what was only held is let go. */
export function releaseBefore(store: BenchStore): void {
  const { beforeSince, set } = store.getState();
  if (beforeSince === undefined) return;
  const wasHeld = performance.now() - beforeSince > TAP_MS;
  set({ beforeSince: undefined, ...(wasHeld && { before: undefined }) });
}
