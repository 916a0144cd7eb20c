import { z } from "zod";
import { separationFields } from "@/core/passes/separation/fields";
import { LEAST_WIDTH, MOST_RANGES, MOST_SATURATION, MOST_WIDTH, PARTING_LIMIT, TURN_LIMIT } from "@/core/passes/separation/move";
import { numbersOf } from "./parts";

/** OKLab's a and b stay within these for every colour there is. */
const MOST_TINGE = 0.5;
const Tinge = z.strictObject({ a: z.number().min(-MOST_TINGE).max(MOST_TINGE), b: z.number().min(-MOST_TINGE).max(MOST_TINGE) });
const Times = z.number().min(0).max(MOST_SATURATION);

export const SeparationMove = z.strictObject({
  kind: z.literal("separation"),
  ...numbersOf(separationFields),
  ranges: z
    .array(
      z.strictObject({
        hueDeg: z.number().min(0).lt(360).describe("OKLCH hue in degrees"),
        widthDeg: z.number().min(LEAST_WIDTH).max(MOST_WIDTH).describe("From there to nothing, to either side"),
        turnDeg: z.number().min(-TURN_LIMIT).max(TURN_LIMIT).describe("How far its hues turn"),
        chroma: Times.describe("Times their chroma"),
      }),
    )
    .max(MOST_RANGES),
  parting: z
    .strictObject({
      stays: Tinge.describe("OKLab a and b of the colour that stays"),
      moves: Tinge.describe("Of the colour that is drawn away from it"),
      held: Tinge.nullable().describe("Of one that is held where it is"),
      amount: z.number().min(-1).max(PARTING_LIMIT).describe("1 doubles what lies between the two, −1 leaves nothing of it"),
    })
    .nullable(),
});
