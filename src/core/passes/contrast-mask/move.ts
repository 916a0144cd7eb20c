import type { ContrastMaskSettings } from "./contrastMask";

/** The darkroom's blurred negative: large contrasts tamed, small ones kept. */
export interface ContrastMaskMove extends ContrastMaskSettings {
  kind: "contrast-mask";
}
