import { AppError } from "./errors";

/** What a body of JSON may hold, looked at while it arrives: what is too much is refused before any of it is parsed. */
export interface JsonLimits {
  bytes: number;
  /** Numbers, texts, lists and objects, all told. */
  values: number;
}

/** No input of ours goes half as deep. */
const MOST_DEPTH = 32;

const [QUOTE, BACKSLASH] = ['"', "\\"].map((letter) => letter.charCodeAt(0)) as [number, number];
/** By how much each byte outside of texts deepens what follows, and whether another value begins with it or after it. */
const DEEPENS = new Int8Array(256);
const BEGINS = new Uint8Array(256);
for (const letter of "[{") DEEPENS[letter.charCodeAt(0)] = 1;
for (const letter of "]}") DEEPENS[letter.charCodeAt(0)] = -1;
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
  #passText(piece: Uint8Array, at: number): number {
    for (let quote = -1; at < piece.length;) {
      if (this.#isEscaped) {
        this.#isEscaped = false;
        at++;
        continue;
      }
      if (quote < at) quote = piece.indexOf(QUOTE, at);
      if (quote < 0) quote = piece.length;
      const backslash = piece.subarray(at, quote).indexOf(BACKSLASH);
      this.#isEscaped = backslash >= 0;
      this.#isText = this.#isEscaped || quote === piece.length;
      if (!this.#isText) return quote + 1;
      at = this.#isEscaped ? at + backslash + 1 : quote;
    }
    return at;
  }

  /** To the next text, or the end of the piece. */
  #passValues(piece: Uint8Array, from: number): number {
    for (let at = from; at < piece.length; at++) {
      const byte = piece[at]!;
      if (byte === QUOTE) {
        this.#isText = true;
        return at + 1;
      }
      this.#depth += DEEPENS[byte]!;
      this.#values += BEGINS[byte]!;
      if (this.#depth > MOST_DEPTH) throw new AppError("invalid_input", `the request is nested more than ${MOST_DEPTH} deep`);
      if (this.#values > this.limits.values)
        throw new AppError("too_large", `the request carries more than the ${this.limits.values} values this address takes`);
    }
    return piece.length;
  }

  tooLarge(): AppError {
    return new AppError("too_large", `the request carries more than the ${Math.round(this.limits.bytes / 1024)} KB this address takes`);
  }
}
