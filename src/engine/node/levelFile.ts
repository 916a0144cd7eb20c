import { closeSync, openSync, writeSync } from "node:fs";
import { EXIF_TYPE, layDirectory, type ExifTag } from "@/core/formats/exif";
import type { Size } from "@/core/spatial/areaReduce";

/**
 * Levels on disk as a little-endian TIFF without compression, written by any number of threads and read by an encoder from top to bottom.
 */
export interface LevelFile {
  file: string;
  /** Where the first level lies. */
  offset: number;
}

/** About as much is read of it at a time. */
const STRIP_BYTES = 1 << 20;
/** Offsets in a TIFF are of 32 bits. */
const MOST_BYTES = 2 ** 32;

/**
 * Makes a file for levels of one or three channels, as yet without them. Source: TIFF 6.0, sections 3, 6 and 7.
 *
 * Errors  RangeError for more than 4 GB of levels.
 */
export function makeLevelFile(file: string, size: Size, channels: 1 | 3, depth: 8 | 16): LevelFile {
  const rowBytes = channels * size.width * (depth / 8);
  const rows = Math.max(1, Math.floor(STRIP_BYTES / rowBytes));
  const strips = Math.ceil(size.height / rows);
  const directory = (offset: number) =>
    layDirectory(
      [
        long(256, [size.width]),
        long(257, [size.height]),
        short(
          258,
          Array.from({ length: channels }, () => depth),
        ),
        short(259, [1]), // no compression
        short(262, [channels === 3 ? 2 : 1]), // RGB, or black is zero
        long(
          273,
          Array.from({ length: strips }, (_, k) => offset + k * rows * rowBytes),
        ),
        short(277, [channels]),
        long(278, [rows]),
        long(
          279,
          Array.from({ length: strips }, (_, k) => rowBytes * Math.min(rows, size.height - k * rows)),
        ),
      ],
      HEADER.length,
    );
  const offset = HEADER.length + directory(0).length;
  if (offset + rowBytes * size.height >= MOST_BYTES) throw new RangeError("more levels than a TIFF can hold");
  const descriptor = openSync(file, "w");
  try {
    writeSync(descriptor, HEADER);
    writeSync(descriptor, directory(offset));
  } finally {
    closeSync(descriptor);
  }
  return { file, offset };
}

/** Little-endian, with its directory right after. */
const HEADER = Uint8Array.of(0x49, 0x49, 42, 0, 8, 0, 0, 0);

function short(tag: number, values: readonly number[]): ExifTag {
  return { tag, type: EXIF_TYPE.short, count: values.length, data: new Uint8Array(Uint16Array.from(values).buffer) };
}

function long(tag: number, values: readonly number[]): ExifTag {
  return { tag, type: EXIF_TYPE.long, count: values.length, data: new Uint8Array(Uint32Array.from(values).buffer) };
}

export interface LevelSink {
  /** Has the levels of rows filled in, and keeps them. */
  write(from: number, to: number, fill: (levels: Uint8Array | Uint16Array) => void): void;
  close(): void;
}

/** Where levels go, of which a row has so many: memory that threads share, or a file. */
export function levelSink(to: SharedArrayBuffer | LevelFile, rowLevels: number, depth: 8 | 16): LevelSink {
  if (to instanceof SharedArrayBuffer) {
    const all = depth === 8 ? new Uint8Array(to) : new Uint16Array(to);
    return { write: (from, end, fill) => fill(all.subarray(from * rowLevels, end * rowLevels)), close() {} };
  }
  const descriptor = openSync(to.file, "r+");
  return {
    write(from, end, fill) {
      const count = (end - from) * rowLevels;
      const levels = depth === 8 ? new Uint8Array(count) : new Uint16Array(count);
      fill(levels);
      writeWhole(descriptor, new Uint8Array(levels.buffer), to.offset + (from * rowLevels * depth) / 8);
    },
    close: () => closeSync(descriptor),
  };
}

/** A write may take less than it is given, where the disk is nearly full for one; the next then says why. */
function writeWhole(descriptor: number, bytes: Uint8Array, position: number): void {
  for (let done = 0; done < bytes.length;) done += writeSync(descriptor, bytes, done, bytes.length - done, position + done);
}
