import type { ExposureStroke } from "@/core/steps/placedStops";
import type { BenchStore } from "../../state/benchStore";
import { chosenPass, withMove } from "../../state/inPlan";
import { NEEDS_EXPOSURE } from "../../tools/tools";
import type { Drawer, Touch } from "../../tools/drawing/drawer";
import { drawStroke, isErasing } from "../../tools/drawing/paintStrokes";

/** Dodges, or burns: Alt brings both back to nothing. */
export function expose(at: Touch, store: BenchStore, burns: boolean): Drawer | undefined {
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") {
    store.getState().set({ failure: NEEDS_EXPOSURE });
    return undefined;
  }
  const { move } = pass;
  const { ceiling, ...brush } = store.getState().exposing;
  return drawStroke<ExposureStroke>(at, store, {
    before: move.strokes,
    moved: { x: 0, y: 0 },
    brush,
    erase: isErasing(at, store),
    dress: (stroke) => ({ ...stroke, burns, ceiling }),
    lay: (strokes) => store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, strokes })),
    label: `${isErasing(at, store) ? "Brought back" : burns ? "Burned" : "Dodged"} in ${pass.name}`,
  });
}
