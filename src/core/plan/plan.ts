import type { HueKnot } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import type { Strand } from "../placement/strand";

export const PLAN_VERSION = 1;

/** Colour to monochrome: weights in linear light, then the hue response. */
export interface Mix {
  weights: Weights;
  /** Whether setting one weight moves the others so that neutrals stay. */
  sumHeld: boolean;
  /** Whether the hue response applies. */
  huesOn: boolean;
  /** Ordered by hue. */
  hueKnots: HueKnot[];
}

/** Tones from → to on the zone scale. */
export interface PlacementMove {
  kind: "placement";
  /** Ordered: strictly increasing from, non-decreasing to. */
  strands: Strand[];
}

export type Move = PlacementMove;

/** One tonal move. */
export interface Pass {
  id: string;
  name: string;
  on: boolean;
  /** 0 nothing, 1 as set, 2 twice as far. */
  strength: number;
  move: Move;
}

/** The ordered steps from colour to print: data only, independent of pixel size. */
export interface Plan {
  version: typeof PLAN_VERSION;
  mix: Mix;
  passes: Pass[];
}
