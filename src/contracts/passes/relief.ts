import { z } from "zod";
import { reliefFields } from "@/core/passes/relief/fields";
import { numbersOf } from "./parts";

export const ReliefMove = z.strictObject({ kind: z.literal("relief"), ...numbersOf(reliefFields) });
