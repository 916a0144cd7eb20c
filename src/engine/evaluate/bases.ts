import type { Surroundings } from "@/core/spatial/slicedBase";
import type { Spread, ToneBase } from "@/core/spatial/toneBase";
import type { MaskBases } from "../masks/maskKeys";

/** What a pass needs of the whole of the tones that enter it. */
export interface StepBase {
  /** For a step that looks at them: for each way they are gathered in. */
  surroundings: readonly Surroundings[];
  /** For a blurred gate. */
  gate: ToneBase | undefined;
}

/**
 * What changing colour before the mix needs of the whole picture as found: for its masks, and of surroundings, by how they are gathered.
 */
export interface ColourBases {
  masks: MaskBases;
  around: ReadonlyMap<string, Surroundings>;
}
export const NO_COLOUR_BASES: ColourBases = { masks: new Map(), around: new Map() };

/** What a part of a picture cannot know by itself. */
export interface Bases {
  colour: ColourBases;
  /** By the step whose tones they were gathered from. */
  steps: ReadonlyMap<number, StepBase>;
  masks: MaskBases;
}
export const NO_BASES: Bases = { colour: NO_COLOUR_BASES, steps: new Map(), masks: new Map() };

/** What tells apart surroundings gathered in different ways. */
export const spreadKey = (spread: Spread): string => JSON.stringify(spread);
