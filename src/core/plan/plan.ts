import type { BlendMode } from "../blend/blend";
import type { ContrastSettings } from "../contrast/contrastCurve";
import type { HueKnot } from "../mix/hueCurve";
import type { Weights } from "../mix/weights";
import type { Strand } from "../placement/strand";

export const PLAN_VERSION = 2;

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

/** Steeper or flatter around a zone; true black and white points. */
export interface ContrastMove extends ContrastSettings {
  kind: "contrast";
}

export type Move = PlacementMove | ContrastMove;
export type MoveKind = Move["kind"];

/** One tonal move. */
export interface Pass {
  id: string;
  name: string;
  on: boolean;
  /** 0 nothing, 1 as set, 2 twice as far. */
  strength: number;
  /** How what the move makes meets what is beneath. */
  blend: BlendMode;
  move: Move;
}

/** The ordered steps from colour to print: data only, independent of pixel size. */
export interface Plan {
  version: typeof PLAN_VERSION;
  mix: Mix;
  passes: Pass[];
}
