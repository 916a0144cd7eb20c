import { LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import type { Plan } from "@/core/plan/plan";
import type { Step } from "./benchStore";

/** The print without the step in hand and all after it; before the mix, plain luminance. */
export function beforePlan(plan: Plan, step: Step): Plan {
  if (step.stage === "pass") {
    const index = plan.passes.findIndex((pass) => pass.id === step.id);
    return { ...plan, passes: plan.passes.slice(0, Math.max(index, 0)) };
  }
  const plain: Plan = { ...plan, mix: { ...plan.mix, weights: { ...LUMINANCE_WEIGHTS }, hueKnots: [] }, passes: [] };
  return step.stage === "finish" ? { ...plain, mix: plan.mix } : plain;
}
