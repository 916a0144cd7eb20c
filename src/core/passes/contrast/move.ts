import type { ContrastSettings } from "./contrastCurve";

/** Steeper or flatter around a zone; true black and white points. */
export interface ContrastMove extends ContrastSettings {
  kind: "contrast";
}
