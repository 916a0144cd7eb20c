import { z } from "zod";
import { HUE_STOPS_LIMIT, LEAST_HUE_GAP, MOST_HUE_KNOTS, type HueKnot } from "@/core/mix/hueCurve";
import { WEIGHT_LIMIT } from "@/core/mix/weights";
import { ROUNDING } from "./passes/parts";

// How colour becomes tone, as it is written in a plan and kept by itself.

const Weight = z.number().min(-WEIGHT_LIMIT).max(WEIGHT_LIMIT);

export const MixLookSchema = z.strictObject({
  weights: z.strictObject({ red: Weight, green: Weight, blue: Weight }),
  sumHeld: z.boolean().describe("Whether setting one weight moves the others so that neutrals stay"),
  huesOn: z.boolean().describe("Whether the hue response applies"),
  hueKnots: z
    .array(
      z.strictObject({
        hueDeg: z.number().min(0).lt(360).describe("OKLCH hue in degrees"),
        stops: z.number().min(-HUE_STOPS_LIMIT).max(HUE_STOPS_LIMIT).describe("Lighter (+) or darker (−)"),
      }),
    )
    .max(MOST_HUE_KNOTS)
    .describe("In the order of hue, 2° apart at least")
    .superRefine(refineKnots),
});

function refineKnots(knots: HueKnot[], context: z.RefinementCtx): void {
  for (let i = 1; i < knots.length; i++) {
    if (knots[i]!.hueDeg - knots[i - 1]!.hueDeg < LEAST_HUE_GAP - ROUNDING) {
      context.addIssue({ code: "custom", path: [i, "hueDeg"], message: `must be at least ${LEAST_HUE_GAP}° above the knot before it` });
    }
  }
  const first = knots[0];
  const last = knots[knots.length - 1];
  if (first && last && knots.length > 1 && first.hueDeg + 360 - last.hueDeg < LEAST_HUE_GAP - ROUNDING) {
    context.addIssue({
      code: "custom",
      path: [knots.length - 1, "hueDeg"],
      message: `must be at least ${LEAST_HUE_GAP}° from the first knot`,
    });
  }
}
