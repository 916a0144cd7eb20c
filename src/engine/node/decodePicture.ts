import { open, rm, stat } from "node:fs/promises";
import parseExif from "exif-reader";
import sharp, { type Metadata } from "sharp";
import { P3_SPACE, SRGB_SPACE, type SourceSpace } from "@/core/colour/sourceSpace";
import { CoreError } from "@/core/errors";
import { readExif, writeExif } from "@/core/formats/exif";
import { readIptc } from "@/core/formats/iptc";
import { withWritten } from "@/core/formats/writtenNotes";
import { readIccProfile } from "@/core/formats/readIccProfile";
import { textOf } from "@/core/text/text";
import { PictureError } from "./pictureError";
import { readXmp } from "./readXmp";
import { HEAD_BYTES, needPicture, type PictureFormat } from "./sniffPicture";

export const MOST_PIXELS = 150e6;
export const MOST_BYTES = 1024 ** 3;
/** AVIF is decoded as a whole, at 18 bytes a pixel: so many are under one and a half gigabytes. */
const MOST_AVIF_PIXELS = 75e6;

/** A picture laid out on disk, ready for reading by rows: interleaved RGB levels, upright. */
export interface DecodedPicture {
  /** The file with the levels, and where in it they begin. */
  file: string;
  offset: number;
  width: number;
  height: number;
  depth: 8 | 16;
  space: SourceSpace;
  facts: PictureFacts;
  /** What of the camera's notes holds for prints too, as an Exif block. */
  exif: Uint8Array | undefined;
}

/** What is told about a picture as it came. */
export interface PictureFacts {
  format: PictureFormat;
  /** Bits a channel as stored in the file. */
  bits: number;
  profile: string;
  capture: Record<string, string>;
  /** Anything that was settled on the way in, in words. */
  notes: string[];
}

/** A picture that takes longer than its pixels account for is no picture of a camera's: seconds for any, and for each million pixels. */
const DECODE_WITHIN_S = { any: 20, megapixel: 0.5 };

sharp.cache(false);

/**
 * Decodes a picture file to raw levels in `target`, upright, its levels untouched: colour profiles of
 * curves and a matrix are read by us and applied later, all others by the decoder.
 *
 * Units   levels as stored, 8 or 16 bits; 10 and 12 bits arrive as 16.
 * Errors  PictureError; nothing is left in `target` then.
 */
export async function decodePicture(path: string, target: string): Promise<DecodedPicture> {
  const format = await checkFile(path);
  try {
    const metadata = await sharp(path, { limitInputPixels: false }).metadata();
    checkMetadata(metadata, format);
    const notes: string[] = [];
    const { space, decoderConverts } = sourceSpace(metadata, notes);
    const depth = metadata.depth === "ushort" ? 16 : 8;
    let pipeline = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: "error" })
      .autoOrient()
      .timeout({ seconds: decodeWithin(metadata) });
    if (!decoderConverts) pipeline = pipeline.keepIccProfile();
    if (metadata.hasAlpha) notes.push("Transparent parts are read as paper white.");
    if (metadata.chromaSubsampling?.startsWith("4:2"))
      notes.push("The file keeps colour at half its size: coloured things of a few pixels are fainter in it than they were.");
    if ((metadata.pages ?? 1) > 1) notes.push(`The file holds ${metadata.pages} pictures; the first is read.`);
    const v = `${target}.v`;
    await pipeline.toColourspace(depth === 16 ? "rgb16" : "srgb").toFile(v);
    if (metadata.hasAlpha) await flattenOnWhite(v, depth);
    const layout = await readLayout(v, depth);
    const noted = notesOf(metadata);
    const facts: PictureFacts = {
      format,
      bits: metadata.bitsPerSample ?? depth,
      profile: textOf(space.name) ?? "a profile without a name",
      capture: captureData(noted),
      notes,
    };
    return { file: v, ...layout, depth, space, facts, exif: noted };
  } catch (error) {
    await rm(`${target}.v`, { force: true });
    if (error instanceof PictureError) throw error;
    throw new PictureError("broken_picture", `the ${format} data is broken or cut off (${decoderWords(error)})`, { cause: error });
  }
}

function decodeWithin({ width, height }: Metadata): number {
  return Math.ceil(DECODE_WITHIN_S.any + (DECODE_WITHIN_S.megapixel * width * height) / 1e6);
}

async function checkFile(path: string): Promise<PictureFormat> {
  const { size } = await stat(path);
  if (size > MOST_BYTES) throw new PictureError("too_large", `the file has ${Math.round(size / 1024 ** 2)} MB; at most 1024 MB are read`);
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    return needPicture(buffer.subarray(0, bytesRead));
  } finally {
    await file.close();
  }
}

function checkMetadata({ width, height, depth, space, channels }: Metadata, format: PictureFormat): void {
  const pixels = width * height;
  if (pixels > MOST_PIXELS) {
    throw new PictureError("too_large", `the picture has ${Math.round(pixels / 1e6)} megapixels; at most ${MOST_PIXELS / 1e6} are read`);
  }
  if (format === "AVIF" && pixels > MOST_AVIF_PIXELS) {
    throw new PictureError(
      "too_large",
      `it is an AVIF picture of ${Math.round(pixels / 1e6)} megapixels; at most ${MOST_AVIF_PIXELS / 1e6} are read of that format, save it as TIFF`,
    );
  }
  if (depth !== "uchar" && depth !== "ushort") {
    throw new PictureError(
      "unusual_picture",
      `its levels are stored as ${depth}, which does not say what white is; save it with 8 or 16 bits a channel`,
    );
  }
  if (!["srgb", "rgb16", "rgb", "b-w", "grey16", "cmyk"].includes(space ?? "")) {
    throw new PictureError("unusual_picture", `its colours are stored as ${space} (${channels} channels); save it as RGB or greyscale`);
  }
  if (space === "cmyk" && depth !== "uchar") {
    throw new PictureError("unusual_picture", "it is a 16-bit CMYK picture; save it as RGB");
  }
}

function sourceSpace({ space, icc, depth }: Metadata, notes: string[]): { space: SourceSpace; decoderConverts: boolean } {
  // The decoder leaves 16-bit grey as it is, whatever its profile says.
  const isLeft = space === "grey16";
  const converted = { space: depth === "ushort" ? P3_SPACE : SRGB_SPACE, decoderConverts: true };
  if (space === "cmyk") {
    notes.push("CMYK was converted to sRGB through its profile.");
    return converted;
  }
  if (!icc) return { space: SRGB_SPACE, decoderConverts: false };
  try {
    const read = readIccProfile(icc);
    if (read) return { space: read, decoderConverts: false };
    if (isLeft) {
      notes.push("Its grey profile works by lookup tables, which are not read at 16 bits; the picture is read as sRGB.");
      return { space: SRGB_SPACE, decoderConverts: false };
    }
    notes.push(`Its profile works by lookup tables; it was converted to ${converted.space.name}.`);
    return converted;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    notes.push("Its colour profile is broken; the picture is read as sRGB.");
    return { space: SRGB_SPACE, decoderConverts: false };
  }
}

/** Bytes before the levels in the decoder library's plain format. */
const HEADER_BYTES = 64;
const FORMAT_BYTES: Record<number, number> = { 0: 1, 2: 2 };

async function readLayout(path: string, depth: 8 | 16): Promise<{ offset: number; width: number; height: number }> {
  const file = await open(path);
  try {
    const header = Buffer.alloc(HEADER_BYTES);
    await file.read(header, 0, HEADER_BYTES, 0);
    const [width, height, bands] = [header.readInt32LE(4), header.readInt32LE(8), header.readInt32LE(12)];
    const sampleBytes = FORMAT_BYTES[header.readInt32LE(20)];
    if (bands !== 3 || sampleBytes !== depth / 8) throw new Error(`decoded to ${bands} bands of ${sampleBytes} bytes`);
    return { offset: HEADER_BYTES, width, height };
  } finally {
    await file.close();
  }
}

const ROWS_AT_A_TIME = 64;

/**
 * Lays a decoded picture with transparency on white, in its file: 4 bands become 3. The decoder library's own way ends at 255 parts of
 * 256 at 16 bits, so that bare paper would not be bare.
 */
async function flattenOnWhite(path: string, depth: 8 | 16): Promise<void> {
  const file = await open(path, "r+");
  try {
    const header = Buffer.alloc(HEADER_BYTES);
    await file.read(header, 0, HEADER_BYTES, 0);
    const [width, height, bands] = [header.readInt32LE(4), header.readInt32LE(8), header.readInt32LE(12)];
    if (bands !== 4) return;
    const pixelBytes = depth / 8;
    for (let y = 0; y < height; y += ROWS_AT_A_TIME) {
      const pixels = Math.min(ROWS_AT_A_TIME, height - y) * width;
      const bytes = Buffer.from(new ArrayBuffer(4 * pixels * pixelBytes));
      await file.read(bytes, 0, bytes.length, HEADER_BYTES + 4 * y * width * pixelBytes);
      const levels = depth === 8 ? new Uint8Array(bytes.buffer) : new Uint16Array(bytes.buffer);
      flattenPixels(levels, 2 ** depth - 1);
      // Three bands of what was four: the rows written end before those still to be read.
      await file.write(bytes, 0, 3 * pixels * pixelBytes, HEADER_BYTES + 3 * y * width * pixelBytes);
    }
    header.writeInt32LE(3, 12);
    await file.write(header, 0, HEADER_BYTES, 0);
    await file.truncate(HEADER_BYTES + 3 * width * height * pixelBytes);
  } finally {
    await file.close();
  }
}

/** Red, green, blue and opacity of each pixel → red, green and blue on white, at the beginning of the array. */
function flattenPixels(levels: Uint8Array | Uint16Array, white: number): void {
  for (let from = 0, to = 0; from < levels.length; from += 4, to += 3) {
    const opacity = levels[from + 3]! / white;
    for (let c = 0; c < 3; c++) levels[to + c] = Math.round(white + opacity * (levels[from + c]! - white));
  }
}

/** All that was noted of a picture and holds for its prints: by the camera, and by hand where the camera has nothing. An Exif block. */
function notesOf({ exif, xmp, iptc }: Pick<Metadata, "exif" | "xmp" | "iptc">): Uint8Array | undefined {
  const written = [...(xmp ? [readXmp(xmp)] : []), ...(iptc ? [readIptc(iptc)] : [])];
  const all = withWritten(exif && readExif(exif), written);
  return all && writeExif(all);
}

/** What a photographer looks up later, from an Exif block; an unreadable block is left aside. */
function captureData(exif: Uint8Array | undefined): Record<string, string> {
  if (!exif) return {};
  try {
    const { Image, Photo } = parseExif(Buffer.concat([Buffer.from("Exif\0\0", "latin1"), exif]));
    const found: Record<string, string | undefined> = {
      Camera: cameraName(textOf(Image?.Make), textOf(Image?.Model)),
      Lens: textOf(Photo?.LensModel),
      Exposure: Photo?.ExposureTime === undefined ? undefined : exposureTime(Photo.ExposureTime),
      Aperture: Photo?.FNumber === undefined ? undefined : `f/${Photo.FNumber}`,
      ISO: Photo?.ISOSpeedRatings === undefined ? undefined : String(Photo.ISOSpeedRatings),
      Taken: dateOf(Photo?.DateTimeOriginal),
      Author: textOf(Image?.Artist),
      Copyright: textOf(Image?.Copyright),
    };
    return Object.fromEntries(Object.entries(found).filter((entry): entry is [string, string] => !!entry[1]));
  } catch {
    return {};
  }
}

/** Many makers begin the model with their own name. */
function cameraName(make: string | undefined, model: string | undefined): string | undefined {
  if (make && model?.toLowerCase().startsWith(make.toLowerCase())) return model;
  return [make, model].filter(Boolean).join(" ") || undefined;
}

function dateOf(date: unknown): string | undefined {
  if (!(date instanceof Date) || Number.isNaN(date.getTime())) return undefined;
  return date.toISOString().slice(0, 16).replace("T", " ");
}

function exposureTime(seconds: number): string {
  return seconds < 0.5 ? `1/${Math.round(1 / seconds)} s` : `${seconds} s`;
}

/** The first line of the decoder's complaint, without paths. */
function decoderWords(error: unknown): string {
  const line = String((error as Error)?.message ?? error).split("\n")[0] ?? "";
  return line.replace(/\/\S+/g, "").trim() || "no reason given";
}
