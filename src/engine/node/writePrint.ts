import { randomUUID } from "node:crypto";
import { rename, rm } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import sharp, { type Sharp } from "sharp";
import { EXPORT_FORMAT_FACTS, type ExportSettings } from "@/contracts/exportSettings";
import { greyProfile } from "@/core/formats/greyProfile";
import { exifOfPrint, readExif } from "@/core/formats/exif";
import { embedInJpeg, embedInPng, embedInTiff } from "./embed";
import type { RenderedPicture } from "./renderPicture";

/** Named in every file as what made it. */
const SOFTWARE = "Nigrographe";

/**
 * Writes grey levels as a picture file with the grey profile in it, its size on paper, and what of the original's notes (an Exif block) is wished. The file
 * appears under its name only when it is whole; a failure leaves nothing behind.
 */
export async function writePrint(rendered: RenderedPicture, settings: ExportSettings, path: string, original?: Uint8Array): Promise<void> {
  const { extension, depth } = EXPORT_FORMAT_FACTS[settings.format];
  const unfinished = join(dirname(path), `.${basename(path)}.${randomUUID()}.${extension}`);
  const raw = { ...rendered.size, channels: 1 as const };
  const pixels = sharp(rendered.levels, { raw, limitInputPixels: false }).toColourspace(depth === 16 ? "grey16" : "b-w");
  try {
    await encoded(pixels, settings).toFile(unfinished);
    const { capture, place, resolution } = settings;
    const exif = exifOfPrint(capture && original ? readExif(original) : undefined, { software: SOFTWARE, place });
    await EMBED[extension](unfinished, { profile: greyProfile(), exif, resolution });
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    await rm(`${unfinished}.embedded`, { force: true });
    throw error;
  }
}

const EMBED = { tif: embedInTiff, png: embedInPng, jpg: embedInJpeg };

function encoded(pixels: Sharp, { format, quality }: ExportSettings): Sharp {
  switch (EXPORT_FORMAT_FACTS[format].extension) {
    case "tif":
      return pixels.tiff({ compression: "deflate", predictor: "horizontal" });
    case "png":
      return pixels.png({ compressionLevel: 4 });
    case "jpg":
      return pixels.jpeg({ quality });
  }
}
