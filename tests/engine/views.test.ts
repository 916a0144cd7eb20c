import { expect, test, vi } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import type { Shape } from "@/core/region/region";
import { lookTable } from "@/core/view/toneTables";
import { BandMachine } from "@/engine/machine/bandMachine";
import { STEPS } from "@/engine/steps/steps";
import { Source } from "@/engine/source/source";
import { Stage } from "@/engine/stage/stage";
import { Views } from "@/engine/views/views";
import { colourful } from "../madePictures";

const size = { width: 300, height: 200 };
const levels = colourful(300, 200);
const showing = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false } as const;

const isSame = (a: Uint8ClampedArray, b: Uint8ClampedArray) => a.length === b.length && a.every((level, i) => level === b[i]);

/** A plan that looks at surroundings, through a mask that looks at the mix. */
function plan(red: number, medium: number): Plan {
  const like: Shape = {
    id: "l",
    combine: "add",
    kind: "likeness",
    touched: [{ x: 0.3, y: 0.5 }],
    not: [],
    tolerance: 0.3,
    connected: true,
    edges: "colour",
    apart: "place",
  };
  return {
    ...defaultPlan(),
    mix: { ...defaultPlan().mix, weights: { red, green: 1 - red, blue: 0 } },
    regions: [{ ...emptyRegion("r", "R"), shapes: [like], soften: 0.02 }],
    passes: [
      { ...restingPass("contrast", "c", "C"), region: "r", move: { kind: "contrast", around: 5, grade: 3, black: 0, white: 10 } },
      { ...restingPass("relief", "s", "S"), move: { kind: "relief", fine: 0, medium, broad: 0 } },
    ],
  };
}

test("two plans shown in turn by stages of one source are what each shows alone, and work on nothing the second time round", () => {
  const views = new Views(Source.fromLevels(levels, size, SRGB_SPACE));
  const plans = [plan(0.2, 0.5), plan(0.7, -0.5)].map((made) => compilePlan(made));
  const active = { first: 1, end: 2 };
  const frames = () => (["print", "glance"] as const).map((purpose, i) => views.stage(purpose).render(plans[i]!, active, showing));
  const first = frames();
  plans.forEach((compiled, i) =>
    expect(isSame(first[i]!, Stage.fromLevels(levels, size, SRGB_SPACE).render(compiled, active, showing))).toBe(true),
  );

  const works = [vi.spyOn(BandMachine.prototype, "mix"), ...Object.values(STEPS).map((step) => vi.spyOn(step, "apply"))];
  for (let k = 0; k < 5; k++) expect(frames().map((frame, i) => isSame(frame, first[i]!))).toEqual([true, true]);
  expect(works.map((spy) => spy.mock.calls.length)).toEqual(works.map(() => 0));
  views.stage("print").render(compilePlan(plan(0.2, 0.6)), active, showing);
  expect(STEPS.surroundings.apply).toHaveBeenCalled();
  vi.restoreAllMocks();
});
