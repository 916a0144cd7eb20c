import { levelledFrame } from "@/core/frame/editFrame";
import type { BenchStore } from "../state/benchStore";
import type { Drawer, Touch } from "../tools/drawing/drawer";
import { adjustFrame } from "./frameEdits";

/** Draws a line along what is to be level or upright; the print is turned so that it is, and the tool put down. */
export function drawLevel(at: Touch, store: BenchStore): Drawer {
  const { set } = store.getState();
  let to = at;
  set({ lasso: [at, at] });
  return {
    move(touches) {
      to = touches.at(-1)!;
      set({ lasso: [at, to] });
    },
    finish() {
      set({ lasso: [] });
      const levelled = levelledFrame(store.getState().plan.frame, at, to);
      if (!levelled) return set({ failure: "That line was too short to tell by. Draw it along what should be level or upright." });
      adjustFrame(store, () => levelled);
      store.getState().commit("Straightened by a line");
      store.getState().putDown();
    },
  };
}
