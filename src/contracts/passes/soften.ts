import { z } from "zod";
import { LEAST_SOFTEN_RADIUS, MOST_SOFTEN_RADIUS } from "@/core/passes/soften/soften";

export const SoftenMove = z.strictObject({
  kind: z.literal("soften"),
  radius: z.number().min(LEAST_SOFTEN_RADIUS).max(MOST_SOFTEN_RADIUS).describe("Standard deviation of the blur, in long edges"),
  spreads: z.enum(["all", "lights"]).describe("all: everything melts into what is around; lights: lights spread, darks stay"),
});
