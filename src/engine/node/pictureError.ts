/** Why a file cannot be taken as a picture. */
export type PictureErrorCode = "not_a_picture" | "broken_picture" | "too_large" | "unusual_picture";

/** A file that is refused; the message says why, in words for the person who brought it. */
export class PictureError extends Error {
  constructor(
    readonly code: PictureErrorCode,
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
    this.name = "PictureError";
  }
}
