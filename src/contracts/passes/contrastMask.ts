import { z } from "zod";
import { LEAST_MASK_RADIUS, MOST_MASK_RADIUS } from "@/core/passes/contrast-mask/contrastMask";

export const ContrastMaskMove = z.strictObject({
  kind: z.literal("contrast-mask"),
  radius: z
    .number()
    .min(LEAST_MASK_RADIUS)
    .max(MOST_MASK_RADIUS)
    .describe("Standard deviation of the mask's blur, as a part of the picture's long edge"),
  density: z.number().min(0).max(1).describe("Contrast of the mask in stops a stop: 0 masks nothing, 1 levels all larger than the blur"),
  edges: z.boolean().describe("Whether the blur stops at edges"),
});
