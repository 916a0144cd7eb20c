import { z } from "zod";
import { P3_SPACE, type SourceSpace } from "@/core/colour/sourceSpace";

const Curve = z.union([
  z.object({
    kind: z.literal("parametric"),
    g: z.number(),
    a: z.number(),
    b: z.number(),
    c: z.number(),
    d: z.number(),
    e: z.number(),
    f: z.number(),
  }),
  z.object({ kind: z.literal("table"), values: z.array(z.number()).min(2) }),
]);

const Space: z.ZodType<SourceSpace> = z.object({
  name: z.string(),
  curves: z.tuple([Curve, Curve, Curve]),
  toP3: z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]),
});

/** One size of a picture that can be asked for, a rectangle at a time. */
export const PreparedLevel = z.object({
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  depth: z.union([z.literal(8), z.literal(16)]),
  space: Space,
  /** Its long edge over the full picture's. */
  scale: z.number().positive(),
  /** Whether it tells the grain of its pixels too. */
  hasGrain: z.boolean(),
});
export type PreparedLevel = z.infer<typeof PreparedLevel>;

/** A picture's levels, from full size down; the last is the preview. */
export const PreparedPicture = z.object({
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  levels: z.array(PreparedLevel).min(1),
});
export type PreparedPicture = z.infer<typeof PreparedPicture>;

/** The same level with its colours cleaned: at 16 bits, in the source's primaries. */
export function cleanedLevel(level: PreparedLevel): PreparedLevel {
  return { ...level, depth: 16, space: { ...level.space, curves: P3_SPACE.curves } };
}
