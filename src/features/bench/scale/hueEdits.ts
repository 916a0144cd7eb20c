import { addHueKnot, hueName } from "@/core/mix/hueCurve";
import type { BenchStore } from "../state/benchStore";
import { adjustMix, inWhichMix, mixInHand } from "../state/mixInHand";

/** Sets a knot at a hue, as light as that is now, and takes it in hand. */
export function setKnot(store: BenchStore, hueDeg: number): void {
  const { set, commit } = store.getState();
  const { knots, index } = addHueKnot(mixInHand(store.getState()).hueKnots, hueDeg);
  if (index === undefined) return set({ failure: "There is no room for another knot. Remove one first." });
  adjustMix(store, { huesOn: true, hueKnots: knots });
  set({ chosenKnot: index });
  commit(`A knot at ${hueName(hueDeg)} ${inWhichMix(store.getState())}`);
}
