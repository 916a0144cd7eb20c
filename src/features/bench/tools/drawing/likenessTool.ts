import { v4 as uuid } from "uuid";
import { LEAST_TOLERANCE, MOST_TOLERANCE, MOST_TOUCHES, RESTING_TOLERANCE, type LikenessShape, type Point } from "@/core/region/region";
import type { BenchStore } from "../../state/benchStore";
import { addShape, adjustShape, regionName } from "../../regions/regionEdits";
import { isErasing } from "./paintStrokes";
import { combineOf, openShape, type Drawer, type Touch } from "./drawer";

/** Likeness is asked again after this much of a sweep. */
const TOUCH_EVERY = 0.006;
/** A drag over the whole long edge makes the tolerance this many times e as large. */
const TOLERANCE_PULL = 4;

/** With Shift the hand takes more or less of what is like it: to the right for more. */
function pullTolerance(at: Touch, { id, tolerance }: LikenessShape, store: BenchStore): Drawer {
  return {
    move(touches) {
      const pulled = tolerance * Math.exp(TOLERANCE_PULL * (touches.at(-1)!.x - at.x));
      const bounded = Math.min(Math.max(pulled, LEAST_TOLERANCE), MOST_TOLERANCE);
      adjustShape(store, id, (now) => (now.kind === "likeness" ? { ...now, tolerance: bounded } : now));
    },
    finish: () => store.getState().commit(`Tolerance in ${regionName(store)}`),
  };
}

/** Touches what is meant, and sweeps over it; Alt, or erasing, takes away. */
export function sweep(at: Touch, store: BenchStore): Drawer | undefined {
  const open = openShape(store, "likeness");
  const shape: LikenessShape = open ?? {
    id: uuid(),
    combine: combineOf(store),
    kind: "likeness",
    touched: [],
    not: [],
    tolerance: RESTING_TOLERANCE,
    connected: true,
    edges: "colour",
    apart: "place",
  };
  if (open && at.shift) return pullTolerance(at, open, store);
  const side = isErasing(at, store) ? "not" : "touched";
  if (!open && side === "not") {
    store.getState().set({ failure: "Touch what is meant first; then take away what is not." });
    return undefined;
  }
  if (shape[side].length >= MOST_TOUCHES) {
    store.getState().set({ failure: "This likeness was touched as often as it can be. Take back a sweep, or draw another shape." });
    return undefined;
  }
  if (!open && !addShape(store, shape)) return undefined;
  store.getState().set({ chosenShape: shape.id });
  let last: Point | undefined;
  const touch = (touches: readonly Touch[]) => {
    const places: Point[] = [];
    for (const { x, y } of touches) {
      if (last && Math.hypot(x - last.x, y - last.y) < TOUCH_EVERY) continue;
      places.push((last = { x, y }));
    }
    if (places.length === 0) return;
    adjustShape(store, shape.id, (now) =>
      now.kind === "likeness" ? { ...now, [side]: [...now[side], ...places].slice(0, MOST_TOUCHES) } : now,
    );
  };
  touch([at]);
  return {
    move: touch,
    finish: () => store.getState().commit(`Likeness ${side === "not" ? "taken away" : "touched"} in ${regionName(store)}`),
  };
}
