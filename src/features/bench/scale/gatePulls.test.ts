import { describe, expect, test } from "vitest";
import { linearP3ToOklab, oklabToLch } from "@/core/colour/oklab";
import { openGate, type Gate } from "@/core/gate/gate";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import type { PointReading } from "@/engine/stage/stageTypes";
import type { BenchState, BenchStore, Step } from "../state/benchStore";
import { pullGate } from "./gatePulls";

/** A red that the mix made zone 4 and what comes before the pass made zone 7. */
const TOUCHED: PointReading = {
  mixed: 0.4,
  entering: 0.7,
  leaving: 0.8,
  finished: 0.9,
  painted: undefined,
  masked: undefined,
  printed: undefined,
  ...oklabToLch(linearP3ToOklab([0.6, 0.05, 0.1])),
};
const toneOf = (light: number) => 1.16 * Math.cbrt(light) - 0.16;

/** The middle of the gate that a touch gives to what is in hand. Units: tone. */
function middle(plan: Plan, step: Step): number {
  const state = { plan, step, adjust: (edit: (before: Plan) => Plan) => (state.plan = edit(state.plan)) };
  const store = { getState: () => state as unknown as BenchState } as BenchStore;
  const puller = pullGate(TOUCHED, store);
  expect(puller).not.toHaveProperty("refused");
  const { gate } =
    step.stage === "set" ? state.plan.sets[0]! : state.plan.passes.find(({ id }) => step.stage === "pass" && id === step.id)!;
  return (gate!.from + gate!.to) / 20;
}

describe("the touched tone becomes the gate's middle as the gate reads it", () => {
  const withGate = (gate: Partial<Gate> | null): Plan => {
    const plan = defaultPlan();
    plan.passes[0]!.gate = gate && { ...openGate(), ...gate };
    return plan;
  };
  const pass: Step = { stage: "pass", id: defaultPlan().passes[0]!.id };

  test.each([
    [null, 0.7],
    [{ source: "entering" }, 0.7],
    [{ source: "mixed" }, 0.4],
    [{ source: "red" }, toneOf(0.6)],
    [{ source: "green" }, toneOf(0.05)],
    [{ source: "blue" }, toneOf(0.1)],
    [{ source: "own", weights: { red: 0.5, green: 0, blue: 0.5 } }, toneOf(0.35)],
    // What the primaries of Display P3 give to luminance.
    [{ source: "lightness" }, toneOf(0.22897 * 0.6 + 0.69174 * 0.05 + 0.07929 * 0.1)],
  ] as const)("%o", (gate, tone) => {
    expect(Math.abs(middle(withGate(gate), pass) - tone)).toBeLessThan(0.0061); // whole, half and third zones draw it to them
  });
  test("of a set, by the mix; before the mix, by the original's lightness", () => {
    const plan = withGate(null);
    plan.sets = [{ id: "set", name: "Set", on: true, strength: 1, region: null, gate: null }];
    plan.passes[0]!.set = "set";
    expect(middle(plan, { stage: "set", id: "set" })).toBeCloseTo(0.4, 2);
    const before = withGate(null);
    before.passes.unshift(restingPass("balance", "before", "Balance"));
    const tone = middle(before, { stage: "pass", id: "before" });
    expect(Math.abs(tone - toneOf(0.22897 * 0.6 + 0.69174 * 0.05 + 0.07929 * 0.1))).toBeLessThan(0.0061);
  });
});
