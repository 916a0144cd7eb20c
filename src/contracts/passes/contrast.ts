import { z } from "zod";
import { contrastFields } from "@/core/passes/contrast/fields";
import { LEAST_RANGE } from "@/core/passes/contrast/contrastCurve";
import { numbersOf, ROUNDING } from "./parts";

export const ContrastMove = z
  .strictObject({
    kind: z.literal("contrast"),
    ...numbersOf(contrastFields),
  })
  .refine(({ black, white }) => white - black >= LEAST_RANGE - ROUNDING, {
    path: ["white"],
    message: `must be at least ${LEAST_RANGE} above black`,
  });
