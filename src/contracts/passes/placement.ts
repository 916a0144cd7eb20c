import { z } from "zod";
import { LEAST_GAP, type Strand } from "@/core/passes/placement/strand";
import { ROUNDING, Zone } from "./parts";

const MOST_STRANDS = 60;

const StrandSchema = z.strictObject({
  from: Zone.describe("Where the tone falls"),
  to: Zone.describe("Where it is placed"),
});

/** The strands of a placement, in order. */
export const Strands = z
  .array(StrandSchema)
  .min(2)
  .max(MOST_STRANDS)
  .describe("Strictly increasing in from (by 0.05 at least), never decreasing in to")
  .superRefine(refineStrands);

export const PlacementMove = z.strictObject({ kind: z.literal("placement"), strands: Strands });

function refineStrands(strands: Strand[], context: z.RefinementCtx): void {
  for (let i = 1; i < strands.length; i++) {
    if (strands[i]!.from - strands[i - 1]!.from < LEAST_GAP - ROUNDING) {
      context.addIssue({ code: "custom", path: [i, "from"], message: `must be at least ${LEAST_GAP} above the strand before it` });
    }
    if (strands[i]!.to < strands[i - 1]!.to) {
      context.addIssue({ code: "custom", path: [i, "to"], message: "must not be below the strand before it, or tones change order" });
    }
  }
}
