import { z } from "zod";
import { LEAST_SPOT, MOST_SPOT, MOST_SPOT_POINTS, SPOT_KINDS } from "@/core/spots/spot";
import { pathOf } from "./region";

// What is covered of a picture, as it is written in a plan.

/** In long edges: what covers a spot lies on the picture, or beyond it where its nearest border serves. */
const Away = z.number().min(-2).max(2);

export const SpotSchema = z.strictObject({
  id: z.string().min(1).max(64).describe("Any name of its own among the spots"),
  kind: z.enum(SPOT_KINDS).describe("heal: what covers it takes on the light around it; clone: it is laid as it is"),
  path: pathOf(MOST_SPOT_POINTS).describe("Where it is, one place or the way along a scratch, as the path of a stroke"),
  radius: z.number().min(LEAST_SPOT).max(MOST_SPOT).describe("To either side, in long edges"),
  softness: z.number().min(0).max(1).describe("The part of the radius over which its edge fades"),
  from: z.strictObject({ x: Away, y: Away }).describe("How far away lies what covers it, in long edges"),
});
