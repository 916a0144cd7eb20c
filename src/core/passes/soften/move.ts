import type { SoftenSettings } from "./soften";

/** The print melted into what lies around each place. */
export interface SoftenMove extends SoftenSettings {
  kind: "soften";
}
