import type { EdgeBurnSettings } from "./edgeBurn";

/** The borders of the print burned in, or lightened. */
export interface EdgeBurnMove extends EdgeBurnSettings {
  kind: "edge-burn";
}
