import { PictureError } from "./pictureError";

/** The formats that are read, by content and never by file name. */
export type PictureFormat = "JPEG" | "PNG" | "TIFF" | "WebP" | "AVIF";

/** The format a file's first bytes (32 are enough) announce, or undefined. */
export function sniffPicture(head: Uint8Array): PictureFormat | undefined {
  const text = (from: number, to: number) => String.fromCharCode(...head.subarray(from, to));
  if (head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff) return "JPEG";
  if (text(1, 4) === "PNG" && head[0] === 0x89) return "PNG";
  if (["II*\0", "MM\0*", "II+\0", "MM\0+"].includes(text(0, 4))) return "TIFF";
  if (text(0, 4) === "RIFF" && text(8, 12) === "WEBP") return "WebP";
  if (text(4, 8) === "ftyp" && /avif|avis/.test(text(8, 32))) return "AVIF";
  return undefined;
}

/** First bytes that are enough to tell a format by. */
export const HEAD_BYTES = 32;

/** The format of a file that begins so. Errors: PictureError `not_a_picture`. */
export function needPicture(head: Uint8Array): PictureFormat {
  if (head.length === 0) throw new PictureError("not_a_picture", "the file is empty");
  const format = sniffPicture(head);
  if (!format) throw new PictureError("not_a_picture", "this is not a JPEG, PNG, TIFF, WebP or AVIF picture, whatever its name says");
  return format;
}
