import { z } from "zod";
import { MOST_RETURNED_SATURATION } from "@/core/passes/colour-return/move";

export const ColourReturnMove = z.strictObject({
  kind: z.literal("colour-return"),
  saturation: z.number().min(0).max(MOST_RETURNED_SATURATION).describe("Of the picture's colour as it is mixed; 1 as it is"),
});
