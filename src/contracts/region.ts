import { z } from "zod";
import { MOST_PATH_POINTS, PRESSURES, unpackPath } from "@/core/brush/stroke";
import { GATE_SOURCES, MOST_GATE_BLUR, MOST_NARROW, MOST_SHOULDER } from "@/core/gate/gate";
import { WEIGHT_LIMIT } from "@/core/mix/weights";
import { LONGEST_NAME } from "@/core/plan/editPasses";
import { holdsLevels } from "@/core/region/pictureLevels";
import {
  COMBINES,
  LEAST_TOLERANCE,
  MOST_CORNERS,
  MOST_FEATHER,
  MOST_FIT,
  MOST_PICTURE_EDGE,
  MOST_SHAPES,
  MOST_SOFTEN,
  MOST_STROKES,
  MOST_TOLERANCE,
  MOST_TOUCHES,
} from "@/core/region/region";
import { LAST_ZONE } from "@/core/zones/zone";
import { refineIds } from "./refineIds";

// Regions and gates as they are written in a plan.

const Id = z.string().min(1).max(64);
const FARTHEST = 10;
const Coordinate = z.number().min(-FARTHEST).max(FARTHEST).describe("In long edges of the picture, from its upper left corner");
const Half = z.number().min(0).max(FARTHEST);
const Part = z.number().min(0).max(1);
const Place = z.strictObject({ x: Coordinate, y: Coordinate });
const Feather = z.number().min(0).max(MOST_FEATHER);

const base = { id: Id.describe("Any name of its own within the region"), combine: z.enum(COMBINES) };
const feather = {
  inner: Feather.describe("Full from this far inside the contour on, in long edges"),
  outer: Feather.describe("Nothing from this far outside it on"),
};

/** A way of so many points at the most. */
export function pathOf(points: number) {
  return z
    .string()
    .max(8 * points)
    .refine(isPath, "must be base64 of 6 bytes for each point")
    .describe("Base64 of x, y (−½ to 1½ long edges) and pressure (0 to 1) of each point as unsigned 16-bit little-endian numbers");
}

export const StrokeSchema = z.strictObject({
  radius: z.number().min(0.0001).max(1),
  hardness: Part,
  flow: Part,
  pressure: z.enum(PRESSURES).describe("What the pen's pressure changes"),
  erase: z.boolean(),
  path: pathOf(MOST_PATH_POINTS),
});

const ShapeSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    ...base,
    ...feather,
    kind: z.literal("outline"),
    corners: z
      .array(z.strictObject({ x: Coordinate, y: Coordinate, smooth: z.boolean() }))
      .min(3)
      .max(MOST_CORNERS),
  }),
  z.strictObject({
    ...base,
    ...feather,
    kind: z.literal("oval"),
    x: Coordinate,
    y: Coordinate,
    across: Half.describe("Half axes"),
    down: Half,
    turnDeg: z.number().min(-360).max(360).describe("Clockwise"),
  }),
  z.strictObject({ ...base, kind: z.literal("gradient"), from: Place, to: Place, twoSided: z.boolean() }),
  z.strictObject({
    ...base,
    kind: z.literal("brush"),
    x: Coordinate.describe("Moved by this since it was laid"),
    y: Coordinate,
    strokes: z.array(StrokeSchema).max(MOST_STROKES),
    beneath: z.boolean().describe("Whether erasing, where it is added, takes from the shapes before it too"),
  }),
  z.strictObject({
    ...base,
    kind: z.literal("likeness"),
    touched: z.array(Place).max(MOST_TOUCHES),
    not: z.array(Place).max(MOST_TOUCHES).describe("Places it is not to resemble"),
    tolerance: z.number().min(LEAST_TOLERANCE).max(MOST_TOLERANCE).describe("Distance of colours in OKLab that still counts"),
    connected: z.boolean(),
    edges: z.enum(["tone", "colour"]).describe("Whether its borders are found by the mixed tone, or by the colours it is like"),
    apart: z
      .enum(["colour", "place"])
      .describe("Whether what is taken away is told by colour alone, or, where colours are alike, by what hangs together with it"),
  }),
  z
    .strictObject({
      ...base,
      kind: z.literal("picture"),
      width: z.number().int().min(1).max(MOST_PICTURE_EDGE),
      height: z.number().int().min(1).max(MOST_PICTURE_EDGE),
      levels: z
        .string()
        .max(Math.ceil(MOST_PICTURE_EDGE ** 2 / 3) * 4)
        .describe("Base64 of a level 0–255 for each pixel, white acts; stretched over the whole picture"),
    })
    .refine(holdsLevels, { path: ["levels"], message: "must be base64 of width · height bytes" }),
]);

export const RegionSchema = z.strictObject({
  id: Id,
  name: z.string().trim().min(1).max(LONGEST_NAME),
  shapes: z.array(ShapeSchema).max(MOST_SHAPES).superRefine(refineIds("shape")).describe("Laid on one after the other"),
  soften: z.number().min(0).max(MOST_SOFTEN).describe("Standard deviation of a blur over all of it, in long edges"),
  fit: z.number().min(0).max(MOST_FIT).describe("How far its edges may be drawn to those of the picture, in long edges"),
  invert: z.boolean(),
  density: Part,
});

const Zone = z.number().min(0).max(LAST_ZONE);
const Weight = z.number().min(-WEIGHT_LIMIT).max(WEIGHT_LIMIT);
const Shoulder = z.number().min(0).max(MOST_SHOULDER);

export const GateSchema = z
  .strictObject({
    source: z
      .enum(GATE_SOURCES)
      .describe("What it reads: the tone entering the pass, the mixed tone, the original's L*, a channel, its own mix"),
    weights: z.strictObject({ red: Weight, green: Weight, blue: Weight }).describe("Of its own mix"),
    from: Zone.describe("Between these zones all is let through"),
    to: Zone,
    low: Shoulder.describe("Width of the shoulders in zones"),
    high: Shoulder,
    linear: z.boolean(),
    invert: z.boolean(),
    narrow: z.number().int().min(0).max(MOST_NARROW).describe("Times the membership is multiplied by itself"),
    blur: z.number().min(0).max(MOST_GATE_BLUR).describe("Standard deviation of a blur over the mask, in long edges"),
    hue: z
      .strictObject({
        centreDeg: z.number().min(0).max(360).describe("OKLCH hue"),
        widthDeg: z.number().min(0).max(180),
        shoulderDeg: z.number().min(0).max(180),
        invert: z.boolean().describe("All but these hues"),
      })
      .nullable(),
    repair: z.array(StrokeSchema).max(MOST_STROKES).describe("Strokes that let more through, or, erasing, less, whatever the tone"),
  })
  .refine(({ from, to }) => to >= from, { path: ["to"], message: "must not be below from" });

function isPath(path: string): boolean {
  try {
    return unpackPath(path).length > 0;
  } catch {
    return false;
  }
}
