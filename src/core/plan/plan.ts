import { Pass } from "../passes/pass";
import type { Frame } from "../frame/frame";
import type { Gate } from "../gate/gate";
import type { MixLook } from "../mix/mixLook";
import type { Region } from "../region/region";
import type { Spot } from "../spots/spot";

export const PLAN_VERSION = 11;

/** Colour to monochrome: weights in linear light, then the hue response. */
export interface Mix extends MixLook {
  /** How far the colour it reads is cleaned of noise and compression: 0 as found, 1 cleaned. */
  clean: number;
  /** How far it departs from what the eye sees as light: 0 not at all, 1 as set, 2 twice as far. */
  strength: number;
  /** Whether its weights apply, or those of the eye. */
  weightsOn: boolean;
}

/** Neighbouring passes with one strength over theirs, acting through one mask. */
export interface PassSet {
  id: string;
  name: string;
  on: boolean;
  /** Times the strength of each of its passes, 0–2. */
  strength: number;
  /** Where all of them act, each within its own region besides; null for the whole picture. */
  region: string | null;
  /** The tones all of them act on, by what is the same for each of them: the mix or the original. Null for all. */
  gate: Gate | null;
}

/** The ordered steps from colour to print: data only, independent of pixel size. */
export interface Plan {
  version: typeof PLAN_VERSION;
  /** How the print is cut out of the picture. */
  frame: Frame;
  /** What is covered of the picture before all else, in order. */
  spots: Spot[];
  mix: Mix;
  /** Any pass may use any of them. */
  regions: Region[];
  sets: PassSet[];
  passes: Pass[];
}
