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

test("hard lies evenly about V: what it does above it does below it", () => {
  const { strands } = READY_PLACEMENTS.find(({ name }) => name === "Hard")!;
  for (const { from, to } of strands) {
    const other = strands.find((strand) => Math.abs(strand.from + from - 10) < 1e-9)!;
    expect(other.to + to).toBeCloseTo(10, 9);
  }
});
