import { LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import { passesBeforeMix } from "@/core/plan/editPasses";
import { confine, withGate } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import type { Before, Step } from "./benchStore";
import { chosenPass, confinedInHand, activeOf, withPass } from "./inPlan";

/**
 * The print as it is compared with: without the step in hand and all after it (before the mix, plain luminance), without its spots alone
 * where they are in hand, or its mix alone.
 */
export function comparedPlan(plan: Plan, step: Step, before: Before): Plan {
  const coloured = plan.passes.slice(0, passesBeforeMix(plan));
  if (before === "source") return { ...plan, passes: [] };
  // What they cover is compared in the print itself: without it the two could not be told from one another.
  if (before === "step" && step.stage === "spots") return { ...plan, spots: [] };
  if (before === "mix") return { ...plan, passes: coloured };
  const hand = activeOf({ plan, step });
  if (hand) return { ...plan, passes: plan.passes.slice(0, hand.first) };
  const plain: Plan = { ...plan, mix: { ...plan.mix, weights: { ...LUMINANCE_WEIGHTS }, hueKnots: [] }, passes: coloured };
  return step.stage === "finish" ? { ...plain, mix: plan.mix } : plain;
}

/** The print as far as the step in hand, nothing after it. */
export function planUpTo(plan: Plan, step: Step): Plan {
  if (step.stage === "finish") return plan;
  const none = step.stage === "mix" ? passesBeforeMix(plan) : 0;
  return { ...plan, passes: plan.passes.slice(0, activeOf({ plan, step })?.end ?? none) };
}

/** The print with the pass or set in hand acting everywhere and on all tones, and a pass past the mask of its set. */
export function planWithoutMask(plan: Plan, step: Step): Plan {
  const pass = chosenPass({ plan, step })?.pass;
  const masked = [confinedInHand({ plan, step })?.id, pass?.set].filter((id) => id != null);
  const free = masked.reduce((now, id) => confine(withGate(now, id, null), id, null), plan);
  return pass ? withPass(free, pass.id, (now) => ({ ...now, zonesOff: [] })) : free;
}
