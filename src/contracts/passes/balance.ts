import { z } from "zod";
import { MIRED_LIMIT, TINT_LIMIT } from "@/core/passes/balance/move";

export const BalanceMove = z.strictObject({
  kind: z.literal("balance"),
  mired: z.number().min(-MIRED_LIMIT).max(MIRED_LIMIT).describe("How much warmer the light becomes, in mired; below nothing cooler"),
  tint: z.number().min(-TINT_LIMIT).max(TINT_LIMIT).describe("Magenta, below nothing green, in hundredths of density of green"),
});
