import { createReadStream, createWriteStream } from "node:fs";
import { open, rename } from "node:fs/promises";
import { pipeline } from "node:stream/promises";
import { crc32, deflateSync } from "node:zlib";

// The encoder library converts levels whenever it is given a profile to embed, so the profile is
// put into the finished file here, and the levels stay as they are.

/** Puts an ICC profile into a PNG file, right after its header. Source: PNG (ISO/IEC 15948), 11.3.2.3 iCCP. */
export async function embedInPng(file: string, profile: Uint8Array): Promise<void> {
  const name = Buffer.from("grey\0\0", "latin1"); // name, separator, compression method 0
  const data = Buffer.concat([Buffer.from("iCCP", "latin1"), name, deflateSync(profile)]);
  const chunk = Buffer.alloc(data.length + 8);
  chunk.writeUInt32BE(data.length - 4, 0);
  data.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(data), data.length + 4);
  await insert(file, 33, chunk);
}

/** Puts an ICC profile into a JPEG file, after its JFIF header. Source: ICC.1:2022, annex B.4. */
export async function embedInJpeg(file: string, profile: Uint8Array): Promise<void> {
  const marker = Buffer.from("ICC_PROFILE\0\x01\x01", "latin1");
  const segment = Buffer.concat([Buffer.from([0xff, 0xe2, 0, 0]), marker, profile]);
  segment.writeUInt16BE(segment.length - 2, 2);
  const head = Buffer.alloc(6);
  const handle = await open(file);
  await handle.read(head, 0, 6, 0).finally(() => handle.close());
  const hasJfif = head[2] === 0xff && head[3] === 0xe0;
  await insert(file, hasJfif ? 4 + head.readUInt16BE(4) : 2, segment);
}

const ICC_TAG = 34675;
const UNDEFINED_TYPE = 7;

/**
 * Puts an ICC profile into a little-endian TIFF file: profile and a new directory go to the end, the
 * header then points there. Source: TIFF 6.0, section 2; ICC.1:2022, annex B.3.
 */
export async function embedInTiff(file: string, profile: Uint8Array): Promise<void> {
  const handle = await open(file, "r+");
  try {
    const header = await readAt(handle, 0, 8);
    if (header.toString("latin1", 0, 2) !== "II" || header.readUInt16LE(2) !== 42) throw new Error("expected a little-endian TIFF");
    const directory = header.readUInt32LE(4);
    const count = (await readAt(handle, directory, 2)).readUInt16LE(0);
    const entries = await readAt(handle, directory + 2, 12 * count);
    const next = await readAt(handle, directory + 2 + 12 * count, 4);
    const { size } = await handle.stat();
    const profileAt = size + (size & 1);
    const directoryAt = profileAt + profile.length + (profile.length & 1);
    const entry = Buffer.alloc(12);
    entry.writeUInt16LE(ICC_TAG, 0);
    entry.writeUInt16LE(UNDEFINED_TYPE, 2);
    entry.writeUInt32LE(profile.length, 4);
    entry.writeUInt32LE(profileAt, 8);
    const all = [...Array.from({ length: count }, (_, i) => entries.subarray(12 * i, 12 * i + 12)), entry];
    all.sort((a, b) => a.readUInt16LE(0) - b.readUInt16LE(0));
    const total = Buffer.alloc(2);
    total.writeUInt16LE(count + 1);
    await handle.write(profile, 0, profile.length, profileAt);
    const block = Buffer.concat([total, ...all, next]);
    await handle.write(block, 0, block.length, directoryAt);
    header.writeUInt32LE(directoryAt, 4);
    await handle.write(header, 0, 8, 0);
  } finally {
    await handle.close();
  }
}

async function readAt(handle: Awaited<ReturnType<typeof open>>, position: number, length: number): Promise<Buffer> {
  const buffer = Buffer.alloc(length);
  const { bytesRead } = await handle.read(buffer, 0, length, position);
  if (bytesRead !== length) throw new Error("file ends early");
  return buffer;
}

async function insert(file: string, at: number, bytes: Uint8Array): Promise<void> {
  const next = `${file}.profiled`;
  await pipeline(async function* () {
    yield* createReadStream(file, { end: at - 1 });
    yield bytes;
    yield* createReadStream(file, { start: at });
  }, createWriteStream(next));
  await rename(next, file);
}
