import { z } from "zod";
import { jpegNoise, type CoderNoise } from "@/core/view/coderNoise";
import { OUTPUT_SPACES, type OutputSpace } from "@/core/colour/printColour";
import { OUTPUT_SHARPENINGS } from "@/core/passes/sharpen/forOutput";

/** Finished exports are kept for so long, then cleared away. */
export const EXPORT_KEPT_DAYS = 7;

export const EXPORT_FORMATS = ["tiff16", "tiff8", "png16", "png8", "jpeg"] as const;

/** The quality a JPEG is written at unless it is said. */
export const JPEG_QUALITY = 95;
/** Below this a smooth sky may show steps, whatever is done. */
export const LEAST_SMOOTH_QUALITY = 88;

/** Pixels to an inch of paper unless it is said, and at the most. */
export const RESOLUTION = 300;
export const MOST_RESOLUTION = 9600;

/** What an export makes of a print. */
export const ExportSettings = z.strictObject({
  format: z.enum(EXPORT_FORMATS),
  /** JPEG only. */
  quality: z.number().int().min(1).max(100).default(JPEG_QUALITY),
  /** How a print that carries colour is written; one without is grey in any case. */
  colour: z.enum(["grey", ...OUTPUT_SPACES]).default("srgb"),
  /** Long edge in pixels; absent: full size. Never enlarges. */
  longEdge: z.number().int().min(16).max(60000).optional(),
  /** A last sharpening for the size of the file. */
  sharpen: z.enum(OUTPUT_SHARPENINGS).default("none"),
  /** Pixels to an inch of paper. */
  resolution: z.number().int().min(1).max(MOST_RESOLUTION).default(RESOLUTION),
  /** Whether what the camera noted goes with the print, and, of that, where it was taken. */
  capture: z.boolean().default(true),
  place: z.boolean().default(false),
  /** The mask of a pass or a set instead of the print, by its id: white acts, linear from 0 to full. */
  maskOf: z.string().max(64).optional(),
});
export type ExportSettings = z.infer<typeof ExportSettings>;
export type ExportFormat = ExportSettings["format"];

export interface ExportFormatFacts {
  label: string;
  depth: 8 | 16;
  extension: "tif" | "png" | "jpg";
  mime: string;
}

export const EXPORT_FORMAT_FACTS: Record<ExportFormat, ExportFormatFacts> = {
  tiff16: { label: "TIFF, 16 bit", depth: 16, extension: "tif", mime: "image/tiff" },
  tiff8: { label: "TIFF, 8 bit", depth: 8, extension: "tif", mime: "image/tiff" },
  png16: { label: "PNG, 16 bit", depth: 16, extension: "png", mime: "image/png" },
  png8: { label: "PNG, 8 bit", depth: 8, extension: "png", mime: "image/png" },
  jpeg: { label: "JPEG, 8 bit", depth: 8, extension: "jpg", mime: "image/jpeg" },
};

/** The space a print's colour is written in; undefined where it is to be grey. */
export function exportSpace({ colour }: ExportSettings): OutputSpace | undefined {
  return colour === "grey" ? undefined : colour;
}

/** Noise that keeps a smooth sky smooth in a JPEG of a quality; none in other formats. */
export function exportNoise({ format, quality }: ExportSettings): CoderNoise | undefined {
  return format === "jpeg" ? jpegNoise(quality) : undefined;
}
