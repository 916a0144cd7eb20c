import { AppError } from "./errors";

/**
 * Room for what is held in memory at one time. One may always come in, however large, so that whatever is allowed at all gets
 * its turn; what finds no room is refused before it is read, and is to be sent again.
 */
export class ByteRoom {
  readonly #most: number;
  #held = 0;

  constructor(most: number) {
    this.#most = most;
  }

  /** Takes room for so many more bytes; gives back what makes it free again, once. Errors: AppError `busy`. */
  take(bytes: number): () => void {
    if (this.#held > 0 && this.#held + bytes > this.#most)
      throw new AppError("busy", "too much is being sent at once. Nothing was changed; this is tried again", {}, undefined, {
        "retry-after": "2",
        connection: "close", // what was not read is not wanted any more
      });
    this.#held += bytes;
    let isFree = false;
    return () => {
      if (!isFree) this.#held -= bytes;
      isFree = true;
    };
  }
}
