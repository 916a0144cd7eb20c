import type { Pass, Plan } from "./plan";

/** Most passes of a plan. */
export const MOST_PASSES = 200;

/** A pass put in after another, or at the end where `afterId` is none of the plan's. Undefined where no more fit. */
export function insertPass(plan: Plan, pass: Pass, afterId?: string): Plan | undefined {
  if (plan.passes.length >= MOST_PASSES) return undefined;
  const after = plan.passes.findIndex(({ id }) => id === afterId);
  const at = after < 0 ? plan.passes.length : after + 1;
  return { ...plan, passes: plan.passes.toSpliced(at, 0, pass) };
}

/** A copy of a pass under another id, named after it. */
export function copyOf(pass: Pass, id: string): Pass {
  return { ...structuredClone(pass), id, name: `${pass.name}, again`.slice(0, 80) };
}

export function removePass(plan: Plan, id: string): Plan {
  return { ...plan, passes: plan.passes.filter((pass) => pass.id !== id) };
}

/** A pass moved to a place in the order (0 first; beyond the ends counts as the end). */
export function movePass(plan: Plan, id: string, to: number): Plan {
  const from = plan.passes.findIndex((pass) => pass.id === id);
  if (from < 0) return plan;
  const target = Math.min(Math.max(to, 0), plan.passes.length - 1);
  return { ...plan, passes: plan.passes.toSpliced(from, 1).toSpliced(target, 0, plan.passes[from]!) };
}
