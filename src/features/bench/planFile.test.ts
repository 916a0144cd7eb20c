import { expect, test } from "vitest";
import { PLAN_VERSION } from "@/core/plan/plan";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { planFileOf, readPlanFile } from "./planFile";

test("a plan that was saved as a file is read as it was", async () => {
  const plan = defaultPlan();
  plan.passes[0]!.name = "Ⅶ, ガ";
  expect(await readPlanFile(planFileOf(plan))).toEqual({ plan });
});

test.each([
  ["", "it is not JSON."],
  ["[]", "it is no plan"],
  [JSON.stringify({ ...defaultPlan(), version: PLAN_VERSION + 1 }), "version"],
  [JSON.stringify({ ...defaultPlan(), passes: [1, 2, 3, 4, 5] }), "and 2 more"],
])("%.20s is refused with its reason", async (text, words) => {
  const read = await readPlanFile(new Blob([text]));
  expect("reason" in read && read.reason).toContain(words);
});
