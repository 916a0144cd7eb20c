import { closeSync, fsyncSync, openSync, readSync } from "node:fs";
import { open, readFile, rename, stat } from "node:fs/promises";
import { dirname } from "node:path";
import { crc32 } from "node:zlib";

// What the cache holds can be made again, so it is never mended: it carries its length and checksum, lies on the disk before it has its
// name, and what disagrees counts as not there.

/** What a file is, when it is whole. */
export interface Seal {
  bytes: number;
  /** Of ISO/IEC 3309, as in PNG and gzip. */
  crc32: number;
}

const READ_BYTES = 1 << 20;

/** The seal of a file as it is. */
export function sealOf(file: string): Seal {
  const descriptor = openSync(file, "r");
  try {
    const buffer = Buffer.allocUnsafe(READ_BYTES);
    let [bytes, sum] = [0, 0];
    for (;;) {
      const got = readSync(descriptor, buffer, 0, READ_BYTES, bytes);
      if (got === 0) return { bytes, crc32: sum };
      sum = crc32(buffer.subarray(0, got), sum);
      bytes += got;
    }
  } finally {
    closeSync(descriptor);
  }
}

/** The same after it has been flushed to the disk. */
export function flushedSeal(file: string): Seal {
  flush(file);
  return sealOf(file);
}

/** Whether a file has its length: what is looked at before each use. */
export async function isWhole(file: string, seal: Seal | undefined): Promise<boolean> {
  return seal !== undefined && (await stat(file).catch(() => undefined))?.size === seal.bytes;
}

/** Has a file, or the names in a folder, last through a power cut. */
function flush(path: string): void {
  const descriptor = openSync(path, "r");
  try {
    fsyncSync(descriptor);
  } finally {
    closeSync(descriptor);
  }
}

/** Gives a folder whose files are flushed its name. Errors: as of `rename`. */
export async function nameFolder(unfinished: string, folder: string): Promise<void> {
  flush(unfinished);
  await rename(unfinished, folder);
  flush(dirname(folder));
}

const TRAILER = /\nsealed ([0-9]+) ([0-9a-f]{8})\n$/;
const TRAILER_MOST_BYTES = 40;

/** Writes a small file with its seal after it, whole or not at all. */
export async function writeSealed(file: string, bytes: Uint8Array): Promise<void> {
  // The bundler is not to look for what may lie at such places.
  const unfinished = `${file}.${Math.random().toString(36).slice(2)}`;
  const handle = await open(/*turbopackIgnore: true*/ unfinished, "w");
  try {
    await handle.write(bytes);
    await handle.write(`\nsealed ${bytes.length} ${crc32(bytes).toString(16).padStart(8, "0")}\n`);
    await handle.sync();
  } finally {
    await handle.close();
  }
  await rename(unfinished, file);
  flush(dirname(file));
}

/** What was written so; undefined where it is not there, or not whole. */
export async function readSealed(file: string): Promise<Buffer<ArrayBuffer> | undefined> {
  const whole = await readFile(file).catch(() => undefined);
  const found = whole && TRAILER.exec(whole.toString("latin1", Math.max(0, whole.length - TRAILER_MOST_BYTES)));
  if (!found) return undefined;
  const bytes = whole.subarray(0, whole.length - found[0].length);
  return bytes.length === Number(found[1]) && crc32(bytes) === parseInt(found[2]!, 16) ? bytes : undefined;
}
