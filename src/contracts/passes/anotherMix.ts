import { z } from "zod";
import { MixLookSchema } from "../mix";

export const AnotherMixMove = z.strictObject({ kind: z.literal("another-mix"), ...MixLookSchema.shape });
