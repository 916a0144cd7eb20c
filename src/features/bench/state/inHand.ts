import type { Pass } from "@/core/passes/pass";
import { actsOnColour, strokesOfMove } from "@/core/passes/passKinds";
import type { Plan } from "@/core/plan/plan";
import { regionOf } from "@/core/plan/editRegions";
import type { BenchState, Step } from "./benchStore";
import { picksColour, unfitting } from "../tools/tools";

/** What the hand has chosen within a step. */
const CHOSEN = {
  chosenStrands: [],
  chosenKnot: undefined,
  chosenPoint: undefined,
  chosenShape: undefined,
  pickedStrokes: [],
  pickedStays: undefined,
  lasso: [],
  chosenSpot: undefined,
  drawnSpot: undefined,
  tried: undefined,
} as const satisfies Partial<BenchState>;

/**
 * What a change of the bench leaves without a meaning, whoever made it: a step that is gone, what was chosen in the step before, picks of
 * strokes or shapes that are there no more, a tool the step in hand has no use for, a glance at the print as it was.
 */
export function withoutMeaning(before: BenchState, after: BenchState, changed: Partial<BenchState>): Partial<BenchState> {
  if (after.plan === before.plan && after.step === before.step && after.tool === before.tool) return {};
  const step = keptStep(after.step, after.plan);
  const pass = step.stage === "pass" ? after.plan.passes.find(({ id }) => id === step.id) : undefined;
  const thing = step.stage === "set" ? after.plan.sets.find(({ id }) => id === step.id) : pass;
  const cleared: Partial<BenchState> = step === after.step ? {} : { step };
  if (!isSameStep(step, before.step)) {
    const { drawing } = after;
    if (picksColour(after.tool)) cleared.tool = "read";
    Object.assign(cleared, lookFor(before, after, pass), CHOSEN);
    if (drawing.corners.length > 0) cleared.drawing = { ...drawing, corners: [] };
  } else if (after.plan !== before.plan) {
    const strokes = (pass && strokesOfMove(pass.move)?.length) ?? 0;
    if (after.pickedStrokes.some((stroke) => stroke >= strokes)) cleared.pickedStrokes = [];
    const shapes = (thing && regionOf(after.plan, thing)?.shapes) ?? [];
    if (after.chosenSpot && !after.plan.spots.some(({ id }) => id === after.chosenSpot)) cleared.chosenSpot = undefined;
    if (after.chosenShape && !shapes.some(({ id }) => id === after.chosenShape)) cleared.chosenShape = undefined;
  }
  // One works on what one sees.
  if (after.plan !== before.plan && !("before" in changed)) cleared.before = undefined;
  if (after.plan !== before.plan) cleared.tried = undefined;
  if (unfitting(after.tool, pass, thing, step.stage)) cleared.tool = "read";
  return cleared;
}

/**
 * Colour is seen while a pass before the mix is in hand, and the print again after it, as after a look for dust; any other way of looking
 * stays.
 */
function lookFor(before: BenchState, { look }: BenchState, pass: Pass | undefined): Pick<BenchState, "look"> | undefined {
  if (before.step.stage === "spots" && look.kind === "dust") return { look: { kind: "picture" } };
  if (pass && actsOnColour(pass.move)) return look.kind === "picture" ? { look: { kind: "colour" } } : undefined;
  return look.kind === "colour" && isBeforeMix(before) ? { look: { kind: "picture" } } : undefined;
}

function isBeforeMix({ step, plan }: BenchState): boolean {
  const pass = step.stage === "pass" ? plan.passes.find(({ id }) => id === step.id) : undefined;
  return !!pass && actsOnColour(pass.move);
}

/** A step as long as the plan has it. */
export function keptStep(step: Step, plan: Plan): Step {
  if (step.stage !== "pass" && step.stage !== "set") return step;
  const things = step.stage === "pass" ? plan.passes : plan.sets;
  return things.some(({ id }) => id === step.id) ? step : { stage: "mix" };
}

function isSameStep(a: Step, b: Step): boolean {
  return a.stage === b.stage && ("id" in a ? a.id : "") === ("id" in b ? b.id : "");
}
