import type { CompiledMask, CompiledPass, CompiledPlan } from "@/core/plan/compilePlan";
import type { Step } from "@/core/steps/step";
import { colourLooksAtWhole, isGatheredOnTheWay, needsBases } from "../masks/maskKeys";
import { keepsTones, reachOf, readsOf, spreadsOf } from "../steps/steps";

/** Passes done in one go: tone tables, or one step of another kind, or none that does anything. */
export interface Run {
  /** Passes done before it and with it. */
  from: number;
  to: number;
  steps: readonly Step[];
  /** Where it acts, if not everywhere; such a run is a single pass. */
  mask: CompiledMask | undefined;
  /** The same step without its gate, for what strokes on the gate let through besides. */
  free: Step | undefined;
}

/** The passes in hand: from one up to another, so that a single pass and a set are told alike. */
export interface ActivePasses {
  first: number;
  end: number;
  /** The set they are, by its id. */
  set?: string | undefined;
}
/** Nothing in hand. */
export const NO_PASSES: ActivePasses = { first: 0, end: 0 };

/** Whether a pass needs the whole of what enters it: it looks at surroundings, or its gate is blurred. */
export function gathers({ step, mask }: CompiledPass): boolean {
  return step !== undefined && (spreadsOf(step) !== undefined || isGatheredOnTheWay(mask?.gate));
}

/** Whether a pass looks at the tones close around each pixel, which a part of a picture has but at its borders. */
export function looksClose({ step }: CompiledPass): boolean {
  return step !== undefined && reachOf(step, 1) !== undefined;
}

/** Whether passes change what lies close around a pixel more than its tone: what a picture made smaller does not show. */
export function changeDetail(passes: readonly CompiledPass[]): boolean {
  return passes.some((pass) => looksClose(pass) || (pass.step && spreadsOf(pass.step)));
}

/** Whether what a hand moves, and all after it, looks at no more than each pixel by itself. */
export function isPointwise({ passes }: Pick<CompiledPlan, "passes">, active: ActivePasses = NO_PASSES): boolean {
  return !passes.slice(active.first).some((pass) => looksClose(pass) || gathers(pass));
}

/** Whether a run reads the picture's colours once they are mixed. */
export function readsColour({ steps }: Pick<Run, "steps">): boolean {
  return steps.some((step) => readsOf(step) !== undefined);
}

/** Whether it lays colour on tones, and leaves them. */
export function laysColour({ step }: Pick<CompiledPass, "step">): boolean {
  return step !== undefined && keepsTones(step);
}

/**
 * How many of a plan's passes come before the first that lays colour on tones, that one with them: after so many there may be colour;
 * Infinity where none does.
 */
export function colouredFrom({ passes }: Pick<CompiledPlan, "passes">): number {
  const first = passes.findIndex(laysColour);
  return first < 0 ? Infinity : first + 1;
}

/**
 * How many pixels away something may lie and still matter to a pixel, on a picture of a long edge; all else that is around is gathered from
 * the whole.
 */
export function closeReach({ passes }: Pick<CompiledPlan, "passes">, longEdge: number): number {
  return passes.reduce((sum, { step }) => sum + ((step && reachOf(step, longEdge)) ?? 0), 0);
}

/** Whether a plan has anything that a part of a picture cannot know by itself. */
export function looksAtWhole(plan: CompiledPlan): boolean {
  return plan.colour.some(colourLooksAtWhole) || looksAtWholeAfterMix(plan);
}

/** The same of what comes after the mix. */
export function looksAtWholeAfterMix({ passes }: Pick<CompiledPlan, "passes">): boolean {
  return passes.some((pass) => gathers(pass) || (pass.mask && needsBases(pass.mask)));
}

/**
 * The plan's passes as runs. A run ends where the tones are wanted, around every step that looks at surroundings and every mask;
 * passes that change nothing are in a run without doing anything.
 */
export function runsOf(plan: CompiledPlan, wanted: Iterable<number> = []): Run[] {
  const cuts = new Set([0, plan.passes.length, ...wanted]);
  plan.passes.forEach(({ step, mask }, i) => (mask || (step && step.kind !== "table")) && cuts.add(i).add(i + 1));
  const places = [...cuts].sort((a, b) => a - b);
  return places.slice(1).map((to, i) => {
    const from = places[i]!;
    const { mask, free } = to - from === 1 ? plan.passes[from]! : NOT_MASKED;
    return { from, to, steps: plan.passes.slice(from, to).flatMap(({ step }) => step ?? []), mask, free };
  });
}

const NOT_MASKED = { mask: undefined, free: undefined };

/** Runs in sweeps over the picture, each beginning with the mix, at `start`, or at a barrier; one at least, if without runs. */
export function sweepsOf(runs: readonly Run[], barriers: ReadonlySet<number>, start: number | undefined): Run[][] {
  const sweeps: Run[][] = [[]];
  for (const run of runs) {
    const mustBegin = barriers.has(run.from) && (sweeps.at(-1)!.length > 0 || start === undefined);
    if (mustBegin) sweeps.push([run]);
    else sweeps.at(-1)!.push(run);
  }
  return sweeps;
}
