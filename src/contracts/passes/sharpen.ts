import { z } from "zod";
import { sharpenFields } from "@/core/passes/sharpen/fields";
import { numbersOf } from "./parts";

export const SharpenMove = z.strictObject({ kind: z.literal("sharpen"), ...numbersOf(sharpenFields) });
