import { z } from "zod";
import { LEAST_TINT_GAP, MOST_TINT_CHROMA, MOST_TINT_POINTS } from "@/core/passes/tint/move";
import { LAST_ZONE } from "@/core/zones/zone";

const Point = z.strictObject({
  zone: z.number().min(0).max(LAST_ZONE),
  hueDeg: z.number().min(0).max(360).describe("Hue of OKLCH, in degrees"),
  chroma: z.number().min(0).max(MOST_TINT_CHROMA).describe("Chroma of OKLCH"),
});

export const TintMove = z.strictObject({
  kind: z.literal("tint"),
  points: z
    .array(Point)
    .min(1)
    .max(MOST_TINT_POINTS)
    .refine((points) => points.every(({ zone }, i) => i === 0 || zone - points[i - 1]!.zone >= LEAST_TINT_GAP - 1e-9), {
      message: `must be in order of their zones, at least ${LEAST_TINT_GAP} apart`,
    })
    .describe("The line of colour over the zones; none at 0 and 10 unless a point lies there"),
  replaces: z.boolean().describe("Whether it takes the place of colour laid before it, or adds to it"),
});
