import type { Pass } from "../passes/pass";
import { expect, test } from "vitest";
import { defaultPlan, restingPass } from "./defaultPlan";
import { curveOfPasses } from "./curveOfPasses";
import { passCurve } from "../passes/passKinds";
import type { Plan } from "./plan";

const lift = (id: string, to: number): Pass => ({
  ...restingPass("placement", id, id),
  move: {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to },
      { from: 10, to: 10 },
    ],
  },
});
const curveOf = (pass: Pass) => {
  const curve = passCurve(pass);
  if (!curve) throw new Error("tones alone do not tell");
  return curve;
};
const planOf = (...passes: Pass[]): Plan => ({ ...defaultPlan(), passes });
const ZONES = [0, 0.7, 2, 4.9, 5, 7.3, 10];

test("passes in hand work one after the other, those around them do not", () => {
  const [before, first, second] = [lift("before", 3), lift("first", 6), lift("second", 4.5)];
  const together = curveOfPasses(planOf(before, first, second), 1, 3)!;
  for (const zone of ZONES) expect(together(zone)).toBeCloseTo(curveOf(second)(curveOf(first)(zone)), 12);
});

test("the strength of a set counts, and a set switched off leaves all tones", () => {
  const plan = planOf({ ...lift("only", 6), set: "set" });
  plan.sets = [{ id: "set", name: "Set", on: true, strength: 0.5, region: null, gate: null }];
  expect(curveOfPasses(plan, 0, 1)!(5)).toBeCloseTo(5.5, 6);
  plan.sets[0]!.on = false;
  for (const zone of ZONES) expect(curveOfPasses(plan, 0, 1)!(zone)).toBe(zone);
});

test("there is none where surroundings count, unless that pass is off", () => {
  const mask = restingPass("contrast-mask", "mask", "Mask");
  expect(curveOfPasses(planOf(mask), 0, 1)).toBeUndefined();
  expect(curveOfPasses(planOf({ ...mask, on: false }), 0, 1)!(4)).toBe(4);
});
