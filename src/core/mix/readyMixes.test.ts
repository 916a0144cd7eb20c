import { expect, test } from "vitest";
import { parsePlan } from "@/contracts/plan";
import { defaultPlan } from "../plan/defaultPlan";
import { READY_MIXES } from "./readyMixes";
import { weightSum } from "./weights";

test.each(READY_MIXES)("$name keeps neutrals, is a valid mix, and is told from all others", ({ name, mix }) => {
  expect(weightSum(mix.weights)).toBeCloseTo(1, 9);
  const plan = { ...defaultPlan(), mix: { ...defaultPlan().mix, ...mix } };
  expect(parsePlan(plan)).toEqual(plan);
  for (const other of READY_MIXES) expect(other.name === name).toBe(JSON.stringify(other.mix) === JSON.stringify(mix));
});
