import { open, rm, stat } from "node:fs/promises";
import readExif from "exif-reader";
import sharp, { type Metadata } from "sharp";
import { P3_SPACE, SRGB_SPACE, type SourceSpace } from "@/core/colour/sourceSpace";
import { CoreError } from "@/core/errors";
import { readIccProfile } from "@/core/formats/readIccProfile";
import { PictureError } from "./pictureError";
import { sniffPicture, type PictureFormat } from "./sniffPicture";

export const MOST_PIXELS = 150e6;
export const MOST_BYTES = 1024 ** 3;

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
    checkMetadata(metadata);
    const notes: string[] = [];
    const { space, decoderConverts } = sourceSpace(metadata, notes);
    const depth = metadata.depth === "ushort" ? 16 : 8;
    let pipeline = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: "truncated" }).autoOrient();
    if (!decoderConverts) pipeline = pipeline.keepIccProfile();
    if (metadata.hasAlpha) {
      pipeline = pipeline.flatten({ background: "#ffffff" });
      notes.push("Transparent parts are read as paper white.");
    }
    if ((metadata.pages ?? 1) > 1) notes.push(`The file holds ${metadata.pages} pictures; the first is read.`);
    const v = `${target}.v`;
    await pipeline.toColourspace(depth === 16 ? "rgb16" : "srgb").toFile(v);
    const layout = await readLayout(v, depth);
    const facts: PictureFacts = {
      format,
      bits: metadata.bitsPerSample ?? depth,
      profile: space.name,
      capture: captureData(metadata.exif),
      notes,
    };
    return { file: v, ...layout, depth, space, facts };
  } catch (error) {
    await rm(`${target}.v`, { force: true });
    if (error instanceof PictureError) throw error;
    throw new PictureError("broken_picture", `the ${format} data is broken or cut off (${decoderWords(error)})`, { cause: error });
  }
}

async function checkFile(path: string): Promise<PictureFormat> {
  const { size } = await stat(path);
  if (size === 0) throw new PictureError("not_a_picture", "the file is empty");
  if (size > MOST_BYTES) throw new PictureError("too_large", `the file has ${Math.round(size / 1024 ** 2)} MB; at most 1024 MB are read`);
  const file = await open(path);
  try {
    const head = Buffer.alloc(32);
    await file.read(head, 0, 32, 0);
    const format = sniffPicture(head);
    if (!format) throw new PictureError("not_a_picture", "this is not a JPEG, PNG, TIFF, WebP or AVIF picture, whatever its name says");
    return format;
  } finally {
    await file.close();
  }
}

function checkMetadata({ width, height, depth, space, channels }: Metadata): void {
  const pixels = width * height;
  if (pixels > MOST_PIXELS) {
    throw new PictureError("too_large", `the picture has ${Math.round(pixels / 1e6)} megapixels; at most ${MOST_PIXELS / 1e6} are read`);
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
  const converted = { space: depth === "ushort" ? P3_SPACE : SRGB_SPACE, decoderConverts: true };
  if (space === "cmyk") {
    notes.push("CMYK was converted to sRGB through its profile.");
    return converted;
  }
  if (!icc) return { space: SRGB_SPACE, decoderConverts: false };
  try {
    const read = readIccProfile(icc);
    if (read) return { space: read, decoderConverts: false };
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

/** What a photographer looks up later, from the EXIF block; an unreadable block is left aside. */
function captureData(exif: Buffer | undefined): Record<string, string> {
  if (!exif) return {};
  try {
    const { Image, Photo } = readExif(exif);
    const found: Record<string, string | undefined> = {
      Camera: [Image?.Make, Image?.Model].filter(Boolean).join(" ") || undefined,
      Lens: Photo?.LensModel as string | undefined,
      Exposure: Photo?.ExposureTime === undefined ? undefined : exposureTime(Photo.ExposureTime),
      Aperture: Photo?.FNumber === undefined ? undefined : `f/${Photo.FNumber}`,
      ISO: Photo?.ISOSpeedRatings === undefined ? undefined : String(Photo.ISOSpeedRatings),
      Taken: Photo?.DateTimeOriginal?.toISOString().slice(0, 16).replace("T", " "),
    };
    return Object.fromEntries(Object.entries(found).filter((entry): entry is [string, string] => !!entry[1]));
  } catch {
    return {};
  }
}

function exposureTime(seconds: number): string {
  return seconds < 0.5 ? `1/${Math.round(1 / seconds)} s` : `${seconds} s`;
}

/** The first line of the decoder's complaint, without paths. */
function decoderWords(error: unknown): string {
  const line = String((error as Error)?.message ?? error).split("\n")[0] ?? "";
  return line.replace(/\/\S+/g, "").trim() || "no reason given";
}
