import type { GrownPlane } from "../machine/grownPlane";
import type { Spread } from "@/core/spatial/toneBase";
import type { BandStep, Step, StepKind } from "@/core/steps/step";
import type { BandMachine } from "../machine/bandMachine";
import { chroma } from "./chroma/chroma";
import { detail } from "./detail/detail";
import { mixed } from "./mixed/mixed";
import type { ColoursRead, OnBand, StepHandler, StepLayer } from "./stepHandler";
import { stops } from "./stops/stops";
import { surroundings } from "./surroundings/surroundings";
import { table } from "./table/table";

/** Whoever handles each kind of step. */
export const STEPS: { readonly [K in StepKind]: StepHandler<K> } = { table, surroundings, stops, mixed, detail, chroma };

const handlerOf = <K extends StepKind>(step: { kind: K }): StepHandler<K> => STEPS[step.kind];

export const weightOf = (step: BandStep): number => handlerOf(step).weight;
export const keepsTones = (step: Step): boolean => handlerOf(step).keepsTones ?? false;

/** What a step reads of the picture's colours; undefined where it reads tones alone. */
export function readsOf<K extends StepKind>(step: BandStep<K>): ColoursRead | undefined {
  return handlerOf(step).reads?.(step);
}

/** How a step gathers surroundings of the whole of the tones that enter it; undefined where it looks at none. */
export function spreadsOf<K extends StepKind>(step: Step<K>): readonly Spread[] | undefined {
  return handlerOf(step).spreads?.(step);
}

/**
 * How many pixels away something may lie and still matter to a pixel; undefined for steps that look at each by itself, or at what was
 * gathered.
 */
export function reachOf<K extends StepKind>(step: Step<K>, longEdge: number): number | undefined {
  return handlerOf(step).reach?.(step, longEdge);
}

/** Whether a plane may be laid out for a step. */
export const isLaidOut = (step: Step): boolean => handlerOf(step).lay !== undefined;

/** What is laid out for a step; undefined where it does without. */
export function laidFor<K extends StepKind>(step: Step<K>, layer: StepLayer): GrownPlane | undefined {
  return handlerOf(step).lay?.(step, layer);
}

/** Does a step on the band in the machine. */
export function applyStep<K extends StepKind>(machine: BandMachine, step: BandStep<K>, band: OnBand): void {
  handlerOf(step).apply(machine, step, band);
}

/** The same by both its mask and, without its gate, by another; false where one after the other will do. */
export function appliesBoth<K extends StepKind>(
  machine: BandMachine,
  step: BandStep<K>,
  free: BandStep<K>,
  added: Float32Array,
  first: number,
): boolean {
  const { applyBoth } = handlerOf(step);
  applyBoth?.(machine, step, free, added, first);
  return applyBoth !== undefined;
}
