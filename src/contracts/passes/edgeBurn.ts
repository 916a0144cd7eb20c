import { z } from "zod";
import { edgeBurnFields } from "@/core/passes/edge-burn/fields";
import { numbersOf } from "./parts";

export const EdgeBurnMove = z.strictObject({
  kind: z.literal("edge-burn"),
  ...numbersOf(edgeBurnFields),
  onPaper: z.boolean().describe("Whether bare paper takes tone too"),
});
