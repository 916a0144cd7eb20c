import { z } from "zod";
import { softenFields } from "@/core/passes/soften/fields";
import { numbersOf } from "./parts";

export const SoftenMove = z.strictObject({
  kind: z.literal("soften"),
  ...numbersOf(softenFields),
  spreads: z.enum(["all", "lights"]).describe("all: everything melts into what is around; lights: lights spread, darks stay"),
});
