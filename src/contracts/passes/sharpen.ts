import { z } from "zod";
import { LEAST_SHARPEN_RADIUS, MOST_AMOUNT, MOST_OVERSHOOT, MOST_SHARPEN_RADIUS, MOST_THRESHOLD } from "@/core/passes/sharpen/sharpen";

const Overshoot = z.number().min(0).max(MOST_OVERSHOOT);

export const SharpenMove = z.strictObject({
  kind: z.literal("sharpen"),
  radius: z.number().min(LEAST_SHARPEN_RADIUS).max(MOST_SHARPEN_RADIUS).describe("Standard deviation of the surroundings, in long edges"),
  amount: z.number().min(0).max(MOST_AMOUNT).describe("What is added of the difference from them"),
  threshold: z.number().min(0).max(MOST_THRESHOLD).describe("Differences below are left, in tone"),
  lighter: Overshoot.describe("The most a place may become lighter, in tone"),
  darker: Overshoot.describe("The most a place may become darker, in tone"),
});
