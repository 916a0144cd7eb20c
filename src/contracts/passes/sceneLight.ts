import { z } from "zod";
import { EXPOSURE_LIMIT, SURROUNDINGS_LIMIT } from "@/core/passes/scene-light/move";

const Stops = (limit: number) => z.number().min(-limit).max(limit);

export const SceneLightMove = z.strictObject({
  kind: z.literal("scene-light"),
  exposure: Stops(EXPOSURE_LIMIT).describe("Stops of light on everything"),
  shadows: Stops(SURROUNDINGS_LIMIT).describe("Stops where the surroundings are dark"),
  lights: Stops(SURROUNDINGS_LIMIT).describe("Stops where the surroundings are light"),
});
