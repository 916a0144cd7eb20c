import { closeSync, openSync, readSync } from "node:fs";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import { CoreError } from "@/core/errors";

/** Where a picture's levels lie on disk; a message to worker threads. */
export interface RawLayout {
  file: string;
  offset: number;
  width: number;
  height: number;
  depth: 8 | 16;
  space: SourceSpace;
  /** Where the grain of a reduced level lies, packed in 32 bits a pixel. */
  grain?: string | undefined;
}

/** Reads rows of interleaved RGB levels from a raw file. */
export class RawLevels {
  readonly #descriptor: number;
  readonly #grain: number | undefined;

  constructor(readonly layout: RawLayout) {
    this.#descriptor = openSync(layout.file, "r");
    this.#grain = layout.grain === undefined ? undefined : openSync(layout.grain, "r");
  }

  /** Pixels x up to x + width of row y up to y + height, row after row, 3 levels each. Errors: CoreError `bad_file`. */
  read(x: number, y: number, width: number, height: number): Uint8Array | Uint16Array {
    const { offset, depth } = this.layout;
    const bytes = this.#rectangle(this.#descriptor, offset, 3 * (depth / 8), x, y, width, height);
    return depth === 8 ? new Uint8Array(bytes) : new Uint16Array(bytes);
  }

  /** The packed grain of the same pixels; undefined where the level was not reduced. */
  readGrain(x: number, y: number, width: number, height: number): Uint32Array<ArrayBuffer> | undefined {
    if (this.#grain === undefined) return undefined;
    return new Uint32Array(this.#rectangle(this.#grain, 0, 4, x, y, width, height));
  }

  close(): void {
    closeSync(this.#descriptor);
    if (this.#grain !== undefined) closeSync(this.#grain);
  }

  #rectangle(
    descriptor: number,
    offset: number,
    pixelBytes: number,
    ...[x, y, width, height]: [number, number, number, number]
  ): ArrayBuffer {
    const bytes = Buffer.from(new ArrayBuffer(width * height * pixelBytes));
    if (x === 0 && width === this.layout.width) {
      fill(descriptor, bytes, offset + y * width * pixelBytes);
    } else {
      for (let row = 0; row < height; row++) {
        const at = offset + ((y + row) * this.layout.width + x) * pixelBytes;
        fill(descriptor, bytes.subarray(row * width * pixelBytes, (row + 1) * width * pixelBytes), at);
      }
    }
    return bytes.buffer as ArrayBuffer;
  }
}

function fill(descriptor: number, bytes: Buffer, position: number): void {
  let done = 0;
  while (done < bytes.length) {
    const got = readSync(descriptor, bytes, done, bytes.length - done, position + done);
    if (got === 0) throw new CoreError("bad_file", "the decoded picture on disk is cut short");
    done += got;
  }
}
