import type { Stroke } from "../brush/stroke";
import type { Length, Stops } from "../units";

/** What gives stops to places: strokes and what is laid over all of them, or the borders of the print. */
export type PlacedStops = { by: "strokes"; settings: StrokeStops } | { by: "borders"; settings: BorderStops };

/** A stroke that dodges or burns, or, erasing, brings both back to nothing. */
export interface ExposureStroke extends Stroke {
  burns: boolean;
  /** Where it leads, in stops: dabs approach it and never pass it. */
  ceiling: Stops;
}

/** Stops laid on by hand. */
export interface StrokeStops {
  strokes: ExposureStroke[];
  /** How strongly what is dodged and what is burned acts: 0 nothing, 1 as painted, 2 twice. */
  dodge: number;
  burn: number;
  /** Stops over all of the region. */
  flat: Stops;
  /** How far what is painted is softened as a whole: standard deviation of the blur, in long edges. */
  soften: Length;
  /** Painted stops approach this and never pass it; null where nothing holds them. */
  limit: Stops | null;
}

/** Stops towards the borders of the print. */
export interface BorderStops {
  /** Given where it acts fully, in the corners: below 0 darkens. */
  stops: Stops;
  /** How far its middle lies from the print's, in long edges of the print. */
  x: number;
  y: number;
  /** Where it begins on the way from the middle to the border, 0–1. */
  begins: number;
  /** 0 an oval, so that corners get most; 1 straight along the borders, so that all of them get it. */
  straight: number;
}
