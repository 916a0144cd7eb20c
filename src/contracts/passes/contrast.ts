import { z } from "zod";
import { HARDEST_GRADE, LEAST_RANGE, SOFTEST_GRADE } from "@/core/passes/contrast/contrastCurve";
import { ROUNDING, Zone } from "./parts";

export const ContrastMove = z
  .strictObject({
    kind: z.literal("contrast"),
    around: Zone.describe("The zone that stays"),
    grade: z.number().min(SOFTEST_GRADE).max(HARDEST_GRADE).describe("Paper grade: -1 for 00, then 0 to 5; 2 leaves all as it is"),
    black: Zone.describe("Tones up to here become black"),
    white: Zone.describe("Tones from here on become paper white"),
  })
  .refine(({ black, white }) => white - black >= LEAST_RANGE - ROUNDING, {
    path: ["white"],
    message: `must be at least ${LEAST_RANGE} above black`,
  });
