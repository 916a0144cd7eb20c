import { STOPS } from "../../zones/zone";
import type { Fields } from "../fields";
import type { SceneLightMove } from "./move";

const EXPOSURE_LIMIT = 3;
const SURROUNDINGS_LIMIT = 2;
const inStops = (about: string, label: string, limit: number) =>
  ({ about, label, least: -limit, most: limit, rest: 0, step: 0.05, written: STOPS }) as const;

export const sceneLightFields: Fields<SceneLightMove> = {
  exposure: inStops("Stops of light on everything", "Exposure", EXPOSURE_LIMIT),
  shadows: inStops("Stops where the surroundings are dark", "Shadows", SURROUNDINGS_LIMIT),
  lights: inStops("Stops where the surroundings are light", "Lights", SURROUNDINGS_LIMIT),
};
