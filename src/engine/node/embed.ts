import { createReadStream, createWriteStream } from "node:fs";
import { open, rename } from "node:fs/promises";
import { pipeline } from "node:stream/promises";
import { crc32, deflateSync } from "node:zlib";
import {
  EXIF_TYPE,
  EXIF_TYPE_BYTES,
  laySubdirectories,
  layDirectory,
  pointers,
  writeExif,
  type Exif,
  type ExifTag,
} from "@/core/formats/exif";

// The encoder library converts levels whenever it is given a profile to embed, and keeps no notes in a TIFF, so what lies beside the
// levels is put into the finished file here, and the levels stay as they are.

/** What a file carries beside its levels. */
export interface Beside {
  /** ICC. */
  profile: Uint8Array;
  exif: Exif;
  /** Pixels to an inch of paper. */
  resolution: number;
}

const INCHES_IN_METRE = 1 / 0.0254;
/** Signature and header of a PNG. */
const PNG_HEAD = 33;

/** Puts it into a PNG file, right after its header. Source: PNG (ISO/IEC 15948), 11.3.2.3 iCCP, 11.3.4.3 pHYs; PNG 1.5 extensions, eXIf. */
export async function embedInPng(file: string, { profile, exif, resolution }: Beside): Promise<void> {
  const handle = await open(file);
  const others: Buffer[] = [];
  let at = PNG_HEAD;
  try {
    for (;;) {
      const head = await readAt(handle, at, 8);
      const name = head.toString("latin1", 4);
      if (name === "IDAT") break;
      const length = 12 + head.readUInt32BE(0);
      if (name !== "pHYs") others.push(await readAt(handle, at, length)); // ours says how large it is
      at += length;
    }
  } finally {
    await handle.close();
  }
  const size = Buffer.alloc(9);
  const dots = Math.round(resolution * INCHES_IN_METRE);
  size.writeUInt32BE(dots, 0);
  size.writeUInt32BE(dots, 4);
  size[8] = 1; // to the metre
  const named = Buffer.from("profile\0\0", "latin1"); // name, separator, compression method 0
  const chunks = [chunk("iCCP", Buffer.concat([named, deflateSync(profile)])), chunk("pHYs", size), chunk("eXIf", writeExif(exif))];
  await replace(file, PNG_HEAD, at, Buffer.concat([...chunks, ...others]));
}

function chunk(name: string, body: Uint8Array): Buffer {
  const data = Buffer.concat([Buffer.from(name, "latin1"), body]);
  const whole = Buffer.alloc(data.length + 8);
  whole.writeUInt32BE(body.length, 0);
  data.copy(whole, 4);
  whole.writeUInt32BE(crc32(data), data.length + 4);
  return whole;
}

/** Puts it into a JPEG file, after its JFIF header. Source: JFIF 1.02; Exif 2.32, 4.7.2; ICC.1:2022, annex B.4. */
export async function embedInJpeg(file: string, { profile, exif, resolution }: Beside): Promise<void> {
  const handle = await open(file);
  const start = await readAt(handle, 0, 6).finally(() => handle.close());
  const hasJfif = start[2] === 0xff && start[3] === 0xe0;
  const jfif = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 2, 1, 0, 0, 0, 0, 0, 0]);
  jfif.writeUInt16BE(resolution, 14);
  jfif.writeUInt16BE(resolution, 16);
  const segments = [
    jfif,
    segment(0xe1, Buffer.concat([Buffer.from("Exif\0\0", "latin1"), writeExif(exif)])),
    segment(0xe2, Buffer.concat([Buffer.from("ICC_PROFILE\0\x01\x01", "latin1"), profile])),
  ];
  await replace(file, 0, hasJfif ? 4 + start.readUInt16BE(4) : 2, Buffer.concat(segments));
}

function segment(marker: number, body: Uint8Array): Buffer {
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

const ICC_TAG = 34675;
const [X_RESOLUTION, Y_RESOLUTION, RESOLUTION_UNIT, INCH] = [282, 283, 296, 2];

/**
 * Puts it into a little-endian TIFF file: profile, notes and a new directory go to the end, the header then points there.
 * Source: TIFF 6.0, section 2; ICC.1:2022, annex B.3; Exif 2.32, 4.6.3.
 */
export async function embedInTiff(file: string, { profile, exif, resolution }: Beside): Promise<void> {
  const handle = await open(file, "r+");
  try {
    const header = await readAt(handle, 0, 8);
    if (header.toString("latin1", 0, 2) !== "II" || header.readUInt16LE(2) !== 42) throw new Error("expected a little-endian TIFF");
    const { size } = await handle.stat();
    const begin = size + (size & 1);
    const { bytes, photoAt, placeAt } = laySubdirectories(exif.photo, exif.place, begin);
    const ours = [
      { tag: ICC_TAG, type: EXIF_TYPE.undefined, count: profile.length, data: profile },
      rational(X_RESOLUTION, resolution),
      rational(Y_RESOLUTION, resolution),
      { tag: RESOLUTION_UNIT, type: EXIF_TYPE.short, count: 1, data: Uint8Array.of(INCH, 0) },
      ...exif.image,
      ...pointers(exif.photo, exif.place, photoAt, placeAt),
    ];
    const theirs = (await readDirectory(handle, header.readUInt32LE(4))).filter(({ tag }) => !ours.some((other) => other.tag === tag));
    const at = begin + bytes.length;
    const block = Buffer.concat([bytes, layDirectory([...theirs, ...ours], at)]);
    await handle.write(block, 0, block.length, begin);
    header.writeUInt32LE(at, 4);
    await handle.write(header, 0, 8, 0);
  } finally {
    await handle.close();
  }
}

function rational(tag: number, value: number): ExifTag {
  const data = new Uint8Array(8);
  const view = new DataView(data.buffer);
  view.setUint32(0, value, true);
  view.setUint32(4, 1, true);
  return { tag, type: EXIF_TYPE.rational, count: 1, data };
}

/** All tags of a directory of a little-endian file, with their values. */
async function readDirectory(handle: FileHandle, at: number): Promise<ExifTag[]> {
  const count = (await readAt(handle, at, 2)).readUInt16LE(0);
  const entries = await readAt(handle, at + 2, 12 * count);
  const tags: ExifTag[] = [];
  for (let from = 0; from < entries.length; from += 12) {
    const [tag, type, values] = [entries.readUInt16LE(from), entries.readUInt16LE(from + 2), entries.readUInt32LE(from + 4)];
    const bytes = values * EXIF_TYPE_BYTES[type]!;
    const data = bytes <= 4 ? entries.subarray(from + 8, from + 8 + bytes) : await readAt(handle, entries.readUInt32LE(from + 8), bytes);
    tags.push({ tag, type, count: values, data });
  }
  return tags;
}

type FileHandle = Awaited<ReturnType<typeof open>>;

async function readAt(handle: FileHandle, position: number, length: number): Promise<Buffer> {
  const buffer = Buffer.alloc(length);
  const { bytesRead } = await handle.read(buffer, 0, length, position);
  if (bytesRead !== length) throw new Error("file ends early");
  return buffer;
}

/** Puts bytes in the place of those from one place up to another. */
async function replace(file: string, from: number, to: number, bytes: Uint8Array): Promise<void> {
  const next = `${file}.embedded`;
  await pipeline(async function* () {
    if (from > 0) yield* createReadStream(file, { end: from - 1 });
    yield bytes;
    yield* createReadStream(file, { start: to });
  }, createWriteStream(next));
  await rename(next, file);
}
