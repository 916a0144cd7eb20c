import { clearedWithin, movedStroke, strokeAt, withStrokes } from "@/core/passes/exposure/editStrokes";
import { MOST_STROKES } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";
import { chosenPass, withMove } from "../../state/inPlan";
import { extent, type Drawer, type Touch } from "../../tools/drawing/drawer";
import { LEAST_SIZE } from "../../tools/drawing/drawShapes";
import { lasso } from "../../tools/drawing/lasso";

/** Picks the stroke touched, with Ctrl one more or one fewer; a drag moves all that are picked. */
export function pickStroke(at: Touch, store: BenchStore): Drawer | undefined {
  const { pickedStrokes, set, adjust, commit } = store.getState();
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") return undefined;
  const { move } = pass;
  const touched = strokeAt(move.strokes, at);
  if (touched === undefined) {
    set({ pickedStrokes: [] });
    return undefined;
  }
  const isPicked = pickedStrokes.includes(touched);
  const others = pickedStrokes.filter((index) => index !== touched);
  const picked = at.ctrl ? (isPicked ? others : [...others, touched]) : isPicked ? pickedStrokes : [touched];
  set({ pickedStrokes: picked });
  return {
    move(touches) {
      const { x, y } = touches.at(-1)!;
      const strokes = withStrokes(move.strokes, new Set(picked), (stroke) => movedStroke(stroke, x - at.x, y - at.y));
      adjust((plan) => withMove(plan, pass.id, { ...move, strokes }));
    },
    finish: () => commit(`${picked.length === 1 ? "Stroke" : "Strokes"} moved in ${pass.name}`),
  };
}

/** Clears what was painted within a loop drawn round it: dodging, burning or both. */
export function clearLoop(at: Touch, store: BenchStore): Drawer | undefined {
  const { set, clearing } = store.getState();
  const pass = chosenPass(store.getState())?.pass;
  if (pass?.move.kind !== "exposure") return undefined;
  const { move } = pass;
  const loop = lasso(at);
  set({ lasso: loop.points() });
  return {
    move(touches) {
      loop.add(touches);
      set({ lasso: loop.points() });
    },
    finish() {
      set({ lasso: [] });
      if (extent(loop.points()) < LEAST_SIZE)
        return set({ failure: "That loop was too small to hold anything. Draw it round what is to be cleared." });
      const strokes = clearedWithin(move.strokes, loop.points(), ({ burns }) => clearing === "both" || burns === (clearing === "burn"));
      if (strokes.length === move.strokes.length && strokes.every((stroke, i) => stroke === move.strokes[i])) {
        return set({ notice: "Nothing of that kind was painted within the loop." });
      }
      if (strokes.length > MOST_STROKES)
        return set({ failure: "Cut there, it would be more strokes than a pass holds. Clear larger parts." });
      store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, strokes }));
      set({ pickedStrokes: [] });
      store.getState().commit(`Cleared within a loop in ${pass.name}`);
    },
  };
}
