import type { CompiledColour } from "@/core/plan/compilePlan";
import type { CompiledMix } from "@/core/mix/mixLook";
import type { BandStep } from "@/core/steps/step";
import { spreadKey, type ColourBases, type StepBase } from "./bases";
import type { BandMachine } from "../machine/bandMachine";
import type { BandPlace } from "../machine/surroundingsBand";
import { applyColourStep, colourSpreadOf } from "../steps/colourSteps";
import { appliesBoth, applyStep, readsOf } from "../steps/steps";

// The one order in which a plan is evaluated on a band, for frames of the page, small pictures, parts at 1:1 and exports alike: these
// differ in where what is needed comes from, and where tones go.

/** A run as it works on a band. */
export interface BandRun {
  steps: readonly BandStep[];
  /** What its one step does without its gate. */
  free: BandStep | undefined;
  base: StepBase | undefined;
}

/** What was laid out for a run: planes of which the band begins at `first`. */
export interface LaidPlanes {
  /** How far it acts, but for a gate that is blurred on the way; absent where it acts everywhere. */
  mask?: Float32Array | undefined;
  /** What strokes on its gate let through besides. */
  added?: Float32Array | undefined;
  /** What its step asked for. */
  laid?: Float32Array | undefined;
  first: number;
}

/** What is done on a band. */
export interface BandPlan<R extends BandRun> {
  mix: CompiledMix;
  /** Whether the mix is left as light, which is all that its runs read. */
  mixesLight?: boolean;
  /** Whether colour is laid on tones at all. */
  laysColour: boolean;
  runs: readonly R[];
}

/**
 * Where what a plan needs on a band comes from, and where tones go. Each may use the machine for itself but for the tones and colour in it.
 */
export interface BandSupply<R extends BandRun> {
  place: BandPlace;
  /** Puts tones to begin from, and the colour on them; absent where it begins with the mix. */
  putTones?: (() => void) | undefined;
  /** Puts what is mixed, with its hues where they are asked for. */
  putColour(withHues: boolean): void;
  /** Puts a and b of what is mixed. */
  putOwnColour(): void;
  planesOf(run: R): LaidPlanes;
  /** Told of the tones in the machine, where they may be kept: after the mix, and after each run. */
  onTones?(run: R | undefined): void;
}

export function evaluateBand<R extends BandRun>(machine: BandMachine, plan: BandPlan<R>, supply: BandSupply<R>): void {
  if (supply.putTones) supply.putTones();
  else {
    supply.putColour(plan.mix.hueTable !== undefined);
    if (plan.mixesLight) machine.mixLight();
    else machine.mix();
    if (plan.laysColour) machine.clearChroma();
    supply.onTones?.(undefined);
  }
  for (const run of plan.runs) {
    if (run.steps.length > 0) {
      const planes = supply.planesOf(run);
      putColours(run.steps, supply);
      evaluateRun(machine, run, planes, supply.place);
    }
    supply.onTones?.(run);
  }
}

function putColours<R extends BandRun>(steps: readonly BandStep[], supply: BandSupply<R>): void {
  for (const step of steps) {
    const reads = readsOf(step);
    if (reads === "own") supply.putOwnColour();
    else if (reads) supply.putColour(reads === "mixed with hues");
  }
}

/** Does a run on the band in the machine, where what it reads of colours is too. */
function evaluateRun(
  machine: BandMachine,
  { steps, free, base }: BandRun,
  { mask, added, laid, first }: LaidPlanes,
  place: BandPlace,
): void {
  const surroundings = base?.surroundings ?? [];
  const apply = (step: BandStep, byMask: boolean) => {
    if (laid) machine.putNext("stops", laid, first);
    applyStep(machine, step, { place, surroundings, isLaid: laid !== undefined, byMask });
  };
  if (!mask) return steps.forEach((step) => apply(step, false));
  const step = steps[0]!;
  machine.putNext("mask", mask, first);
  if (base?.gate) machine.narrowMask(base.gate, place);
  if (!free || !added) {
    if (added) machine.widenMask(added, first);
    return apply(step, true);
  }
  if (appliesBoth(machine, step, free, added, first)) return;
  // Stops add up one after the other.
  apply(step, true);
  machine.putNext("mask", added, first);
  apply(free, true);
}

/** A change of colour, and how far it goes. */
export type ColourChange = Pick<CompiledColour, "step" | "strength">;

/**
 * Changes the colour in the machine by passes before the mix, each by its mask where it has one: planes of which the band begins at
 * `first`.
 */
export function changeColour(
  machine: BandMachine,
  passes: readonly ColourChange[],
  masks: readonly (Float32Array | undefined)[],
  { around }: Pick<ColourBases, "around">,
  place: BandPlace,
  first = 0,
): void {
  passes.forEach(({ step, strength }, i) => {
    const mask = masks[i];
    if (mask) machine.putNext("mask", mask, first);
    const spread = colourSpreadOf(step);
    applyColourStep(machine, step, strength, mask !== undefined, spread && around.get(spreadKey(spread)), place);
  });
}
