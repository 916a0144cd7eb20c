import { randomUUID } from "node:crypto";
import { rename, rm } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import sharp, { type Sharp } from "sharp";
import { EXPORT_FORMAT_FACTS, type ExportSettings } from "@/contracts/exportSettings";
import { greyProfile } from "@/core/formats/greyProfile";
import { embedInJpeg, embedInPng, embedInTiff } from "./embedProfile";
import type { RenderedPicture } from "./renderPicture";

/**
 * Writes grey levels as a picture file with the grey profile in it. The file appears under its name
 * only when it is whole; a failure leaves nothing behind.
 */
export async function writePrint(rendered: RenderedPicture, settings: ExportSettings, path: string): Promise<void> {
  const { extension, depth } = EXPORT_FORMAT_FACTS[settings.format];
  const unfinished = join(dirname(path), `.${basename(path)}.${randomUUID()}.${extension}`);
  const raw = { ...rendered.size, channels: 1 as const };
  const pixels = sharp(rendered.levels, { raw, limitInputPixels: false }).toColourspace(depth === 16 ? "grey16" : "b-w");
  try {
    await encoded(pixels, settings).toFile(unfinished);
    await EMBED[extension](unfinished, greyProfile());
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    await rm(`${unfinished}.profiled`, { force: true });
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
