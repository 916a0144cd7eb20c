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
}

/** Reads rows of interleaved RGB levels from a raw file. */
export class RawLevels {
  readonly #descriptor: number;

  constructor(readonly layout: RawLayout) {
    this.#descriptor = openSync(layout.file, "r");
  }

  /** Pixels x up to x + width of row y up to y + height, row after row, 3 levels each. Errors: CoreError `bad_file`. */
  read(x: number, y: number, width: number, height: number): Uint8Array | Uint16Array {
    const { offset, depth } = this.layout;
    const pixelBytes = 3 * (depth / 8);
    const bytes = Buffer.from(new ArrayBuffer(width * height * pixelBytes));
    if (x === 0 && width === this.layout.width) {
      this.#fill(bytes, offset + y * width * pixelBytes);
    } else {
      for (let row = 0; row < height; row++) {
        const at = offset + ((y + row) * this.layout.width + x) * pixelBytes;
        this.#fill(bytes.subarray(row * width * pixelBytes, (row + 1) * width * pixelBytes), at);
      }
    }
    return depth === 8 ? new Uint8Array(bytes.buffer) : new Uint16Array(bytes.buffer);
  }

  close(): void {
    closeSync(this.#descriptor);
  }

  #fill(bytes: Buffer, position: number): void {
    let done = 0;
    while (done < bytes.length) {
      const got = readSync(this.#descriptor, bytes, done, bytes.length - done, position + done);
      if (got === 0) throw new CoreError("bad_file", "the decoded picture on disk is cut short");
      done += got;
    }
  }
}
