/** Memory that threads share, handed out piece by piece from the front, and again from the front once it is cleared. */
export class Arena {
  #buffer = new SharedArrayBuffer(0);
  #used = 0;

  /** Whether so many bytes are there, or could be made. What was handed out before is nobody's afterwards. */
  clear(bytes: number): boolean {
    this.#used = 0;
    if (bytes <= this.#buffer.byteLength) return true;
    if (bytes > MOST_BYTES) return false;
    // Browsers do not collect shared memory until they collect all else: it grows in few steps.
    this.#buffer = new SharedArrayBuffer(Math.min(Math.max(bytes, 2 * this.#buffer.byteLength), MOST_BYTES));
    return true;
  }

  /** A piece of so many numbers; RangeError beyond what it was cleared for. */
  floats(length: number): Float32Array {
    return new Float32Array(this.#buffer, this.#take(4 * length), length);
  }

  /** The same of bytes. */
  bytes(length: number): Uint8Array {
    return new Uint8Array(this.#buffer, this.#take(length), length);
  }

  #take(bytes: number): number {
    const at = this.#used;
    this.#used += pieceOf(bytes);
    return at;
  }
}

/** What a piece of so many bytes takes up. */
export function pieceOf(bytes: number): number {
  return Math.ceil(bytes / PIECE) * PIECE;
}

/** Pieces begin on lines of the cache, so that two threads do not fight over one. */
const PIECE = 64;
const MOST_BYTES = 128 << 20;
