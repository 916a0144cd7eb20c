import type { ExposureSettings } from "./exposure";

/** Dodge and burn: painted by hand, laid flat, given zone by zone. */
export interface ExposureMove extends ExposureSettings {
  kind: "exposure";
}
