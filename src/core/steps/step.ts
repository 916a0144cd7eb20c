import { PlacedStops } from "./placedStops";
import type { BlendMode } from "../blend/blend";
import { partsColours, type CompiledMix } from "../mix/mixLook";
import type { Spread } from "../spatial/toneBase";
import type { StopsRows } from "./orderedStops";
import type { Length, Stops } from "../units";

/** What passes do to tones, or lay on them. Closed: the engine has a handler for each (engine/steps), and one without does not compile. */
export interface Steps {
  table: TableStep;
  surroundings: SurroundingsStep;
  stops: StopsStep;
  mixed: MixedStep;
  detail: DetailStep;
  chroma: ChromaStep;
}
export type StepKind = keyof Steps;
export type Step<K extends StepKind = StepKind> = { [P in K]: Steps[P] }[K];

/** A step as it works on a band: what was placed has become a plane. */
export type BandStep<K extends StepKind = StepKind> = { [P in K]: P extends "stops" ? GivenStops : Steps[P] }[K];

/** What is added to a tone, over tone 0–1. */
export interface TableStep {
  kind: "table";
  table: Float32Array;
}

/** How the stops given to a place reach its tones. */
export interface StopsThrough {
  /** How much of them reaches a tone, over tone 0–1; absent where all do. */
  share: Float32Array | undefined;
  /** In its stead where that would bring tones out of order: what reaches tones for each amount given. */
  rows: StopsRows | undefined;
}

/** How a blended tone meets what is beneath: how far it comes through over the tone of the place, strength included. */
export interface Blended {
  mode: BlendMode;
  share: Float32Array;
  /** In its stead where that would bring tones out of order: what changes in them for each amount of stops given to the place. */
  rows: StopsRows | undefined;
}

/**
 * Stops given to a place by its surroundings, gathered in one way or several, whose stops add up; meeting the print normally, at the pass's
 * strength.
 */
export interface SurroundingsStep {
  kind: "surroundings";
  /** Stops over the tone of the place itself; absent where it gives none. */
  own: Float32Array | undefined;
  around: readonly {
    spread: Spread;
    /** Stops over the tone of the surroundings. */
    stops: Float32Array;
  }[];
  through: StopsThrough;
  /** Absent where it meets the print normally. */
  blended: Blended | undefined;
}

/** Stops given to places, and by tone. */
export interface StopsStep {
  kind: "stops";
  /** What tells the stops of each place. */
  placed: PlacedStops;
  /** Times those stops, and stops given to every place besides. */
  gain: number;
  flat: Stops;
  through: StopsThrough;
  /** Stops given by tone besides; absent where none are. */
  byTone: Float32Array | undefined;
  /** Whether less light darkens bare paper too, or leaves it. */
  onPaper: boolean;
  /** Absent where it meets the print normally. */
  blended: Blended | undefined;
}

/** The same for places that have their stops already. */
export type GivenStops = Omit<StopsStep, "placed">;

export function bandStep(step: Step): BandStep {
  if (step.kind !== "stops") return step;
  const { kind, gain, flat, through, byTone, onPaper, blended } = step;
  return { kind, gain, flat, through, byTone, onPaper, blended };
}

/** Whether a step reads the picture's colours beyond their light, so that they are cleaned for it where the plan cleans. */
export function readsColours(step: Step): boolean {
  switch (step.kind) {
    case "mixed":
      return partsColours(step.mix);
    case "chroma":
      return step.laid.by === "colour";
    case "table":
    case "surroundings":
    case "stops":
    case "detail":
      return false;
  }
}

/** How tones that a step makes meet those that are there. */
export interface Meeting {
  mode: BlendMode;
  strength: number;
  /** How far they come through over the tone of the place; absent where they do everywhere. */
  share: Float32Array | undefined;
}

/** Tones mixed of the colours anew. */
export interface MixedStep extends Meeting {
  kind: "mixed";
  mix: CompiledMix;
}

/** Tones changed by how far they lie from the mean close around them, pixel by pixel. */
export interface DetailStep extends Meeting {
  kind: "detail";
  /** Standard deviation of what is around, in long edges. */
  radius: Length;
  /** What is added, over the difference from −1 to 1. */
  added: Float32Array;
}

/** Colour laid on tones, which stay. */
export interface ChromaStep {
  kind: "chroma";
  laid: LaidChroma;
  strength: number;
  /** How far it comes through over the tone of the place; absent where it does everywhere. */
  share: Float32Array | undefined;
}

/**
 * Colour as a and b of OKLab: over tone 0–1, or that of the picture as it is mixed, so much of it; and whether it takes the place of what
 * is there or adds to it.
 */
export type LaidChroma = { replaces: boolean } & ({ by: "tone"; a: Float32Array; b: Float32Array } | { by: "colour"; saturation: number });
