import { z } from "zod";
import { MOST_BEGINS, MOST_SHIFT } from "@/core/passes/edge-burn/edgeBurn";
import { Stops } from "./parts";

export const EdgeBurnMove = z.strictObject({
  kind: z.literal("edge-burn"),
  stops: Stops.describe("In the corners; below 0 darkens"),
  x: z.number().min(-MOST_SHIFT).max(MOST_SHIFT).describe("How far its middle lies from the picture's, in long edges"),
  y: z.number().min(-MOST_SHIFT).max(MOST_SHIFT),
  begins: z.number().min(0).max(MOST_BEGINS).describe("Where it begins on the way from its middle to the border"),
  straight: z.number().min(0).max(1).describe("0 an oval, 1 straight along the borders"),
  onPaper: z.boolean().describe("Whether bare paper takes tone too"),
});
