import type { Move } from "@/core/passes/moves";
import type { Confined, Pass } from "@/core/passes/pass";
import { placedStops } from "@/core/passes/passKinds";
import { placeOfSet } from "@/core/plan/editPasses";
import { regionOf } from "@/core/plan/editRegions";
import type { PassSet, Plan } from "@/core/plan/plan";
import type { Region } from "@/core/region/region";
import type { ActivePasses } from "@/engine/evaluate/runs";
import type { BenchState } from "./benchStore";

// What of a plan is in hand, and plans with it changed.

/** The plan for all that need not follow every dab: while a hand draws, as it was when it began. */
export function settledPlan({ plan, planAtPress }: Pick<BenchState, "plan" | "planAtPress">): Plan {
  return planAtPress ?? plan;
}

/** The plan as it is seen: with what is being tried, where something is. */
export function seenPlan({ plan, tried }: Pick<BenchState, "plan" | "tried">): Plan {
  return tried ?? plan;
}

/** The pass in hand with its place, or undefined while a stage is. */
export function chosenPass({ plan, step }: Pick<BenchState, "plan" | "step">): { pass: Pass; index: number } | undefined {
  if (step.stage !== "pass") return undefined;
  const index = plan.passes.findIndex((pass) => pass.id === step.id);
  return index < 0 ? undefined : { pass: plan.passes[index]!, index };
}

/** Whether a pass gives stops to places, so that there is a map of them. */
export function givesStops(pass: Pass | undefined): boolean {
  return pass !== undefined && placedStops(pass.move) !== undefined;
}

/** The pass or the set in hand: what a region and a gate are given to. */
export function confinedInHand(state: Pick<BenchState, "plan" | "step">): Confined | undefined {
  return chosenSet(state) ?? chosenPass(state)?.pass;
}

/** The region of the pass or the set in hand, if it has one. */
export function chosenRegion({ plan, step }: Pick<BenchState, "plan" | "step">): Region | undefined {
  const thing = confinedInHand({ plan, step });
  return thing && regionOf(plan, thing);
}

/** The set in hand, if one is. */
export function chosenSet({ plan, step }: Pick<BenchState, "plan" | "step">): PassSet | undefined {
  return step.stage === "set" ? plan.sets.find((set) => set.id === step.id) : undefined;
}

/** The passes in hand: one, or those of a set. */
export function activeOf(state: Pick<BenchState, "plan" | "step">): ActivePasses | undefined {
  const set = chosenSet(state);
  if (set) return { ...placeOfSet(state.plan, set.id), set: set.id };
  const chosen = chosenPass(state);
  return chosen && { first: chosen.index, end: chosen.index + 1 };
}

/** A plan with one of its sets changed. */
export function withSet(plan: Plan, id: string, change: Partial<PassSet>): Plan {
  return { ...plan, sets: plan.sets.map((set) => (set.id === id ? { ...set, ...change } : set)) };
}

/** A plan with one of its passes changed. */
export function withPass(plan: Plan, id: string, change: (pass: Pass) => Pass): Plan {
  return { ...plan, passes: plan.passes.map((pass) => (pass.id === id ? change(pass) : pass)) };
}

/** A plan with the move of one of its passes replaced. */
export function withMove(plan: Plan, id: string, move: Move): Plan {
  return withPass(plan, id, (pass) => ({ ...pass, move }));
}
