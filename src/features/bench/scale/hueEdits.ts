import { addHueKnot, hueName } from "@/core/mix/hueCurve";
import type { BenchStore } from "../state/benchStore";

/** Sets a knot at a hue, as light as that is now, and takes it in hand. */
export function setKnot(store: BenchStore, hueDeg: number): void {
  const { plan, adjust, set, commit } = store.getState();
  const { knots, index } = addHueKnot(plan.mix.hueKnots, hueDeg);
  if (index === undefined) return set({ failure: "There is no room for another knot. Remove one first." });
  adjust((now) => ({ ...now, mix: { ...now.mix, huesOn: true, hueKnots: knots } }));
  set({ chosenKnot: index });
  commit(`A knot at ${hueName(hueDeg)} in the mix`);
}
