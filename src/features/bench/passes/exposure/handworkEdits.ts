import { softenedStroke, strokesReaching, withStrokes } from "@/core/passes/exposure/editStrokes";
import type { Patch } from "@/core/region/patches";
import type { Size } from "@/core/spatial/areaReduce";
import type { BenchStore } from "../../state/benchStore";
import { withMove } from "../../state/inPlan";

/** Places of a patch asked for strokes: enough that none slips through between them. */
const MOST_ASKED = 150;

/** Softens the strokes of a pass that reach some patches; says so where none does. Shape: the patches' cells count on `of`. */
export function softenThere(store: BenchStore, passId: string, patches: readonly Patch[], of: Size): void {
  const { plan, adjust, commit, set } = store.getState();
  const pass = plan.passes.find(({ id }) => id === passId);
  if (pass?.move.kind !== "exposure") return;
  const { move } = pass;
  const long = Math.max(of.width, of.height);
  const places = patches.flatMap(({ cells }) => {
    const step = Math.ceil(cells.length / MOST_ASKED);
    return cells
      .filter((_, i) => i % step === 0)
      .map((cell) => ({ x: ((cell % of.width) + 0.5) / long, y: (Math.floor(cell / of.width) + 0.5) / long }));
  });
  const reaching = strokesReaching(move.strokes, places);
  if (reaching.length === 0) {
    return set({ notice: "No stroke reaches there: it is the edge of the region that shows. Soften the region, or widen its feather." });
  }
  adjust((now) => withMove(now, passId, { ...move, strokes: withStrokes(move.strokes, new Set(reaching), softenedStroke) }));
  commit(`${reaching.length === 1 ? "A stroke" : `${reaching.length} strokes`} softened in ${pass.name}`);
}
