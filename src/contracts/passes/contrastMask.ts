import { z } from "zod";
import { contrastMaskFields } from "@/core/passes/contrast-mask/fields";
import { numbersOf } from "./parts";

export const ContrastMaskMove = z.strictObject({
  kind: z.literal("contrast-mask"),
  ...numbersOf(contrastMaskFields),
  edges: z.boolean().describe("Whether the blur stops at edges"),
});
