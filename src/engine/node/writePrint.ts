import { randomUUID } from "node:crypto";
import { rename, rm } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import sharp, { type Sharp } from "sharp";
import { EXPORT_FORMAT_FACTS, type ExportSettings } from "@/contracts/exportSettings";
import { greyProfile, rgbProfile } from "@/core/formats/writtenProfile";
import { exifOfPrint, readExif } from "@/core/formats/exif";
import { embedInJpeg, embedInPng, embedInTiff } from "./embed";
import type { RenderedFile, RenderedPicture } from "./renderPicture";

/** Named in every file as what made it. */
const SOFTWARE = "Nigrographe";

/**
 * Writes levels as a picture file with the profile of what they are in it, its size on paper, and what of the original's notes (an Exif
 * block) is wished. The file appears under its name only when it is whole; a failure leaves nothing behind.
 */
export async function writePrint(
  rendered: RenderedPicture | RenderedFile,
  settings: ExportSettings,
  path: string,
  original?: Uint8Array,
): Promise<void> {
  const { extension, depth } = EXPORT_FORMAT_FACTS[settings.format];
  const unfinished = join(dirname(path), `.${basename(path)}.${randomUUID()}.${extension}`);
  const { space } = rendered;
  const pixels = levelsOf(rendered).toColourspace(ENCODED[space ? "colour" : "grey"][depth]);
  try {
    await encoded(pixels, settings).toFile(unfinished);
    const { capture, place, resolution } = settings;
    const exif = exifOfPrint(capture && original ? readExif(original) : undefined, { software: SOFTWARE, place });
    await EMBED[extension](unfinished, { profile: space ? rgbProfile(space) : greyProfile(), exif, resolution });
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    await rm(`${unfinished}.embedded`, { force: true });
    throw error;
  }
}

function levelsOf({ size, space, levels }: RenderedPicture | RenderedFile): Sharp {
  if ("file" in levels) return sharp(levels.file, { limitInputPixels: false });
  return sharp(levels, { raw: { ...size, channels: space ? 3 : 1 }, limitInputPixels: false });
}

/** The encoder's names for levels of so many bits. */
const ENCODED = { grey: { 8: "b-w", 16: "grey16" }, colour: { 8: "srgb", 16: "rgb16" } } as const;
const EMBED = { tif: embedInTiff, png: embedInPng, jpg: embedInJpeg };

function encoded(pixels: Sharp, { format, quality }: ExportSettings): Sharp {
  switch (EXPORT_FORMAT_FACTS[format].extension) {
    case "tif":
      return pixels.tiff({ compression: "deflate", predictor: "horizontal" });
    case "png":
      return pixels.png({ compressionLevel: 4 });
    case "jpg":
      return pixels.jpeg({ quality, chromaSubsampling: "4:4:4" });
  }
}
