import type { Stops } from "../../units";

/** The scene lit otherwise, before it is mixed. Units: stops. */
export interface SceneLightMove {
  kind: "scene-light";
  exposure: Stops;
  /** Where the surroundings are dark. */
  shadows: Stops;
  /** Where they are light. */
  lights: Stops;
}
