import { passInSet } from "./editPasses";
import { leavesAll, passCurve } from "../passes/passKinds";
import type { ZoneCurve } from "../steps/zoneCurve";
import type { Plan } from "./plan";

/**
 * What neighbouring passes, from `first` up to before `end`, make of a tone one after the other, with the strengths of
 * their sets. Undefined where one of them looks at surroundings, so that a tone alone does not tell where it goes.
 */
export function curveOfPasses(plan: Plan, first: number, end: number): ZoneCurve | undefined {
  const acting = plan.passes
    .slice(first, end)
    .map((pass) => passInSet(plan, pass))
    .filter((pass) => !leavesAll(pass));
  const curves = acting.flatMap((pass) => passCurve(pass) ?? []);
  if (curves.length < acting.length) return undefined;
  return (zone) => curves.reduce((reached, curve) => curve(reached), zone);
}
