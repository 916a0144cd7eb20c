import { z } from "zod";
import { LEAST_LIMIT, MOST_CEILING, MOST_LIMIT } from "@/core/passes/exposure/exposure";
import { exposureFields } from "@/core/passes/exposure/fields";
import { MOST_STROKES } from "@/core/region/region";
import { ZONE_COUNT } from "@/core/zones/zone";
import { StrokeSchema } from "../region";
import { numbersOf, Stops } from "./parts";

export const ExposureMove = z.strictObject({
  kind: z.literal("exposure"),
  strokes: z
    .array(StrokeSchema.extend({ burns: z.boolean(), ceiling: z.number().min(0).max(MOST_CEILING).describe("Where it leads, in stops") }))
    .max(MOST_STROKES)
    .describe("Lights and darks painted by hand, in order; erasing brings both back to nothing"),
  ...numbersOf(exposureFields),
  limit: z.number().min(LEAST_LIMIT).max(MOST_LIMIT).nullable().describe("Painted stops approach this and never pass it; null for none"),
  zones: z.array(Stops).length(ZONE_COUNT).describe("Stops for each zone, 0 to X"),
  endsHeld: z.boolean().describe("Whether the tones at both ends of the scale are left nearly alone"),
});
