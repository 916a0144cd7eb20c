import { z } from "zod";
import { colourReturnFields } from "@/core/passes/colour-return/fields";
import { numbersOf } from "./parts";

export const ColourReturnMove = z.strictObject({ kind: z.literal("colour-return"), ...numbersOf(colourReturnFields) });
