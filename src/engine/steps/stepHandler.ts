import type { PlacedStops } from "@/core/steps/placedStops";
import type { Surroundings } from "@/core/spatial/slicedBase";
import type { Spread } from "@/core/spatial/toneBase";
import type { ColourStep, ColourStepKind } from "@/core/steps/colourStep";
import type { BandStep, Step, StepKind } from "@/core/steps/step";
import type { Length } from "@/core/units";
import type { BandMachine } from "../machine/bandMachine";
import type { GrownPlane } from "../machine/grownPlane";
import type { BandPlace } from "../machine/surroundingsBand";

/** Lays out what steps need for each pixel. */
export interface StepLayer {
  /** Stops given to places; undefined where none are. */
  stops(placed: PlacedStops): GrownPlane | undefined;
  /** How far the tones that enter lie from those close around them: ½ where they do not. Units: the radius in long edges. */
  differences(radius: Length): Float32Array;
}

/** What a step reads of the picture's colours: those that are mixed, with their hues or without, or their own a and b. */
export type ColoursRead = "mixed" | "mixed with hues" | "own";

/** What a step finds when it works on a band, besides what is in the machine. */
export interface OnBand {
  place: BandPlace;
  /** What it gathered of the whole picture, one for each of its spreads. */
  surroundings: readonly Surroundings[];
  /** Whether what was laid out for it is in the machine, as stops. */
  isLaid: boolean;
  /** Whether it acts by the mask in the machine. */
  byMask: boolean;
}

/** All that the engine knows of a kind of step. */
export interface StepHandler<K extends StepKind> {
  /** About how long a pixel takes, in times of reading a table. */
  weight: number;
  /** Whether it changes no tone, but the colour beside them. */
  keepsTones?: true;
  reads?(step: BandStep<K>): ColoursRead | undefined;
  /** How it gathers surroundings of the whole of the tones that enter it. */
  spreads?(step: Step<K>): readonly Spread[];
  /** How many pixels away something may lie and still matter to a pixel, on a picture of a long edge. */
  reach?(step: Step<K>, longEdge: number): number;
  /** A number for each pixel that it needs; undefined where it does without. */
  lay?(step: Step<K>, layer: StepLayer): GrownPlane | undefined;
  /**
   * tone, a, b → the same after it. What it reads of colours is in the machine. All other planes but red, green, blue and the mask are
   * anything afterwards.
   */
  apply(machine: BandMachine, step: BandStep<K>, band: OnBand): void;
  /**
   * The same by the mask and, without its gate, by another that adds to it, read from `first` on; absent where one after the other will do.
   */
  applyBoth?(machine: BandMachine, step: BandStep<K>, free: BandStep<K>, added: Float32Array, first: number): void;
}

/** All that the engine knows of a kind of step before the mix. */
export interface ColourStepHandler<K extends ColourStepKind> {
  /** As above. */
  weight: number;
  /** How it gathers surroundings of the tones as found. */
  spread?(step: ColourStep<K>): Spread | undefined;
  /** tone as found → stops, before anything else of the step. */
  ready?(machine: BandMachine, step: ColourStep<K>, around: Surroundings | undefined, place: BandPlace): void;
  /** red, green, blue → what it makes of them in full. */
  apply(machine: BandMachine, step: ColourStep<K>): void;
}
