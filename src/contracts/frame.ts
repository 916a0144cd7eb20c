import { z } from "zod";
import { LEAST_SIDE, MOST_DEGREES } from "@/core/frame/frame";

// How a print is cut out of its picture, as it is written in a plan.

/** A crop may be larger than the picture, or lie beside it: it is cut inside it. */
const FARTHEST = 10;
const Coordinate = z.number().min(-FARTHEST).max(FARTHEST);
const Side = z.number().min(LEAST_SIDE).max(FARTHEST);

export const FrameSchema = z.strictObject({
  turns: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]).describe("Quarter turns of the picture, clockwise"),
  degrees: z.number().min(-MOST_DEGREES).max(MOST_DEGREES).describe("Turned besides, to straighten it, clockwise"),
  mirrored: z.boolean().describe("Whether left and right are swapped, after turning"),
  crop: z
    .strictObject({
      x: Coordinate.describe("Its middle, in long edges of the picture, from the picture's upper left corner"),
      y: Coordinate,
      width: Side.describe("Along the print's width, in long edges of the picture"),
      height: Side,
    })
    .nullable()
    .describe("What is cut out; null for as much as there is in the picture's own proportions"),
});
