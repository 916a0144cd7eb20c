import { z } from "zod";
import { balanceFields } from "@/core/passes/balance/fields";
import { numbersOf } from "./parts";

export const BalanceMove = z.strictObject({ kind: z.literal("balance"), ...numbersOf(balanceFields) });
