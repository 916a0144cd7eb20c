import { expect, test } from "vitest";
import { parsePlan } from "../../../contracts/plan";
import { defaultPlan } from "../../plan/defaultPlan";
import { findStrain } from "./findStrain";
import { placementCurve } from "./placementCurve";
import { READY_PLACEMENTS } from "./readyPlacements";

test.each(READY_PLACEMENTS.map((ready) => [ready.name, ready] as const))("%s is valid and strains no tones", (_, { strands }) => {
  const plan = defaultPlan();
  plan.passes[0]!.move = { kind: "placement", strands: [...strands] };
  expect(parsePlan(plan)).toEqual(plan);
  expect(findStrain(placementCurve(strands))).toEqual([]);
});

test("each has a name of its own", () => {
  expect(new Set(READY_PLACEMENTS.map(({ name }) => name)).size).toBe(READY_PLACEMENTS.length);
});
