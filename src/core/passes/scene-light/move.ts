/** The scene lit otherwise, before it is mixed. Units: stops. */
export interface SceneLightMove {
  kind: "scene-light";
  exposure: number;
  /** Where the surroundings are dark. */
  shadows: number;
  /** Where they are light. */
  lights: number;
}
export const EXPOSURE_LIMIT = 3;
export const SURROUNDINGS_LIMIT = 2;
