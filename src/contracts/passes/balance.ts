import { z } from "zod";
import { MOST_COOLER, MOST_WARMER, TINT_LIMIT } from "@/core/passes/balance/move";

export const BalanceMove = z.strictObject({
  kind: z.literal("balance"),
  mired: z.number().min(-MOST_COOLER).max(MOST_WARMER).describe("How much warmer the light becomes, in mired; below nothing cooler"),
  tint: z.number().min(-TINT_LIMIT).max(TINT_LIMIT).describe("Magenta, below nothing green, in hundredths of density of green"),
});
