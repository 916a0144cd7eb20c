import type { ReliefSettings } from "./relief";

/** Local contrast raised or lowered in three sizes of detail. */
export interface ReliefMove extends ReliefSettings {
  kind: "relief";
}
