import { AppError } from "./errors";

/** What a body of JSON may hold, looked at while it arrives: what is too much is refused before any of it is parsed. */
export interface JsonLimits {
  bytes: number;
  /** Numbers, texts, lists and objects, all told. */
  values: number;
}

/** A text no longer than this is passed byte by byte. */
const SHORT_TEXT = 24;
/** No input of ours goes half as deep. */
const MOST_DEPTH = 32;

const [QUOTE, BACKSLASH] = ['"', "\\"].map((letter) => letter.charCodeAt(0)) as [number, number];
/** By how much each byte outside of texts deepens what follows, and whether another value begins with it or after it. */
const DEEPENS = new Int8Array(256);
const BEGINS = new Uint8Array(256);
for (const letter of "[{") DEEPENS[letter.charCodeAt(0)] = 1;
for (const letter of "]}") DEEPENS[letter.charCodeAt(0)] = -1;
/** Whether a byte outside of texts is more than a part of a number, a word or a space. */
const MEANS = new Uint8Array(256);
for (const letter of '[]{},"') MEANS[letter.charCodeAt(0)] = 1;
for (const letter of "[{,") BEGINS[letter.charCodeAt(0)] = 1;

/** Follows JSON in UTF-8, piece by piece. Errors: AppError `too_large`, `invalid_input` for what is nested too deeply. */
export class JsonGuard {
  #depth = 0;
  #values = 1;
  #bytes = 0;
  #isText = false;
  #isEscaped = false;

  constructor(readonly limits: JsonLimits) {}

  take(piece: Uint8Array): void {
    this.#bytes += piece.length;
    if (this.#bytes > this.limits.bytes) throw this.tooLarge();
    for (let at = 0; at < piece.length;) at = this.#isText ? this.#passText(piece, at) : this.#passValues(piece, at);
  }

  /** To the end of the text, or of the piece; returns where it went on to. */
  #passText(piece: Uint8Array, from: number): number {
    let at = from;
    if (this.#isEscaped) {
      this.#isEscaped = false;
      at++;
    }
    // Most texts are short; a long one is searched by the machine's own means, by the next quote and whether a backslash lies before it.
    for (const near = Math.min(at + SHORT_TEXT, piece.length); at < near; at++) {
      const byte = piece[at]!;
      if (byte === QUOTE) return this.#endText(at + 1);
      if (byte === BACKSLASH && ++at >= piece.length) this.#isEscaped = true;
    }
    for (let quote = -1; at < piece.length;) {
      if (quote < at) quote = piece.indexOf(QUOTE, at);
      if (quote < 0) quote = piece.length;
      const backslash = piece.subarray(at, quote).indexOf(BACKSLASH);
      if (backslash < 0) return quote < piece.length ? this.#endText(quote + 1) : quote;
      at += backslash + 2;
      this.#isEscaped = at > piece.length;
    }
    return piece.length;
  }

  #endText(at: number): number {
    this.#isText = false;
    return at;
  }

  /** To the next text, or the end of the piece. */
  #passValues(piece: Uint8Array, from: number): number {
    const most = this.limits.values;
    let depth = this.#depth;
    let values = this.#values;
    let at = from;
    for (; at < piece.length; at++) {
      const byte = piece[at]!;
      if (!MEANS[byte]) continue;
      if (byte === QUOTE) break;
      depth += DEEPENS[byte]!;
      values += BEGINS[byte]!;
      if (depth > MOST_DEPTH || values > most) this.#refuse(depth);
    }
    this.#depth = depth;
    this.#values = values;
    this.#isText = at < piece.length;
    return at + 1;
  }

  #refuse(depth: number): never {
    if (depth > MOST_DEPTH) throw new AppError("invalid_input", `the request is nested more than ${MOST_DEPTH} deep`);
    throw new AppError("too_large", `the request carries more than the ${this.limits.values} values this address takes`);
  }

  tooLarge(): AppError {
    return new AppError("too_large", `the request carries more than the ${Math.round(this.limits.bytes / 1024)} KB this address takes`);
  }
}
