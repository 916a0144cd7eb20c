import { z } from "zod";
import { sceneLightFields } from "@/core/passes/scene-light/fields";
import { numbersOf } from "./parts";

export const SceneLightMove = z.strictObject({ kind: z.literal("scene-light"), ...numbersOf(sceneLightFields) });
