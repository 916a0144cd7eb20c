import type { ExposureStroke } from "@/core/steps/placedStops";
import { withStrokes } from "@/core/passes/exposure/editStrokes";
import type { BenchStore } from "../../state/benchStore";
import { chosenPass, withMove } from "../../state/inPlan";

/** Changes the strokes that are picked in the exposure in hand. */
export function adjustPicked(store: BenchStore, change: (stroke: ExposureStroke) => ExposureStroke): void {
  const { pickedStrokes, adjust } = store.getState();
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") return;
  const strokes = withStrokes(pass.move.strokes, new Set(pickedStrokes), change);
  const move = { ...pass.move, strokes };
  adjust((plan) => withMove(plan, pass.id, move));
}

/** Deletes the strokes that are picked. */
export function deletePicked(store: BenchStore): void {
  const { pickedStrokes, adjust, set, commit } = store.getState();
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure" || pickedStrokes.length === 0) return;
  const move = { ...pass.move, strokes: pass.move.strokes.filter((_, i) => !pickedStrokes.includes(i)) };
  set({ pickedStrokes: [] });
  adjust((plan) => withMove(plan, pass.id, move));
  commit(`${pickedStrokes.length === 1 ? "A stroke" : `${pickedStrokes.length} strokes`} deleted in ${pass.name}`);
}
