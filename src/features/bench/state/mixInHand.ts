import type { MixLook } from "@/core/mix/mixLook";
import { mixOfMove, withMoveMix } from "@/core/passes/passKinds";
import type { Plan } from "@/core/plan/plan";
import type { BenchState, BenchStore } from "./benchStore";
import { chosenPass, withPass } from "./inPlan";

/** A mix of a plan: that of a pass that mixes anew, by its id, or the plan's own. */
export type MixPlace = string | undefined;

/** Where the mix in hand lies: in the pass in hand, where that mixes anew. */
export function mixPlaceOf(state: Pick<BenchState, "plan" | "step">): MixPlace {
  const pass = chosenPass(state)?.pass;
  return pass && mixOfMove(pass.move) ? pass.id : undefined;
}

/** A mix of a plan. Where its pass is gone, the plan's own. */
export function mixAt(plan: Plan, place: MixPlace): MixLook {
  const pass = place === undefined ? undefined : plan.passes.find(({ id }) => id === place);
  return (pass && mixOfMove(pass.move)) ?? plan.mix;
}

/** A plan with one of its mixes changed. */
export function withMixAt(plan: Plan, place: MixPlace, change: Partial<MixLook>): Plan {
  if (place === undefined) return { ...plan, mix: { ...plan.mix, ...change } };
  return withPass(plan, place, (pass) => ({ ...pass, move: withMoveMix(pass.move, change) }));
}

/** The mix in hand. */
export function mixInHand(state: Pick<BenchState, "plan" | "step">): MixLook {
  return mixAt(state.plan, mixPlaceOf(state));
}

/** Changes the mix in hand under the hand. */
export function adjustMix(store: BenchStore, change: Partial<MixLook>): void {
  const place = mixPlaceOf(store.getState());
  store.getState().adjust((plan) => withMixAt(plan, place, change));
}

/** What is said of a change after its own words: which mix it is in. */
export function inWhichMix(state: Pick<BenchState, "plan" | "step">): string {
  const place = mixPlaceOf(state);
  return place === undefined ? "in the mix" : `in ${state.plan.passes.find(({ id }) => id === place)!.name}`;
}
