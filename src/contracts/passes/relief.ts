import { z } from "zod";
import { LEAST_RELIEF, MOST_RELIEF } from "@/core/passes/relief/relief";

const amount = (detail: string) =>
  z
    .number()
    .min(LEAST_RELIEF)
    .max(MOST_RELIEF)
    .describe(`What is added to ${detail} detail, as a part of what there is: -1 takes it away, 2 makes it three times as strong`);

export const ReliefMove = z.strictObject({
  kind: z.literal("relief"),
  fine: amount("fine"),
  medium: amount("medium"),
  broad: amount("broad"),
});
