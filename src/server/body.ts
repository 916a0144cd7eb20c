import type { z } from "zod";
import { MOST_FAULTS } from "@/contracts/plan";
import { isWellFormed } from "@/core/text/text";
import { ByteRoom } from "./byteRoom";
import { AppError } from "./errors";
import { JsonGuard, type JsonLimits } from "./jsonGuard";

// What comes with a request.

/** Most requests are a few words; those that carry plans, or what is kept of them, say how much they may be. */
const FEW_WORDS: JsonLimits = { bytes: 16 * 1024, values: 1000 };
/** A placement or a mix; the pins of a print. */
export const A_FEW_KILOBYTES: JsonLimits = { bytes: 128 * 1024, values: 20_000 };
/** A plan of many thousand strokes and imported masks. */
export const A_PLAN: JsonLimits = { bytes: 64 * 1024 ** 2, values: 1_000_000 };

/**
 * The request's JSON body through a schema, read no further than the limits.
 *
 * Errors  AppError `invalid_input`, for broken JSON, for text that is none and for what is nested too deeply; `too_large`; `wrong_type` for
 *         what is not said to be JSON.
 */
export function readBody<T>(request: Request, schema: z.ZodType<T>, limits = FEW_WORDS): Promise<T> {
  return withBody(request, limits, async (bytes) => parseBody(bytes, schema));
}

/** A request with no more than this is read and answered in a few milliseconds. */
export const LITTLE_BYTES = 64 * 1024;
/** Of larger ones so much is held at one time, all told: they wait for a thread, and there may be many. */
const room = new ByteRoom(32 * 1024 ** 2);

/**
 * The same as it came, for as long as it is in use, to be parsed elsewhere. Errors: AppError `invalid_input`, `too_large`, `wrong_type`,
 * `busy`.
 */
export async function withBody<T>(request: Request, limits: JsonLimits, work: (bytes: Uint8Array<ArrayBuffer>) => Promise<T>): Promise<T> {
  needJson(request);
  const guard = new JsonGuard(limits);
  const said = Number(request.headers.get("content-length") ?? 0);
  if (said > limits.bytes) throw guard.tooLarge();
  const held = said > LITTLE_BYTES ? [room.take(said)] : [];
  const pieces: Uint8Array[] = [];
  let read = 0;
  try {
    for await (const piece of piecesOf(request)) {
      guard.take(piece);
      read += piece.length;
      // One that does not say how much there is of it takes room as it comes.
      if (read > Math.max(said, LITTLE_BYTES)) held.push(room.take(piece.length));
      pieces.push(piece);
    }
    return await work(joined(pieces, read));
  } finally {
    for (const free of held) free();
  }
}

/** In memory of their own, so that they can be given away. */
function joined(pieces: readonly Uint8Array[], length: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}

async function* piecesOf(request: Request): AsyncGenerator<Uint8Array> {
  try {
    yield* (request.body ?? []) as unknown as AsyncIterable<Uint8Array>;
  } catch (error) {
    throw new AppError("invalid_input", "the request was cut off", {}, { cause: error });
  }
}

/** A body that was read so, through a schema. Errors: AppError `invalid_input`. */
export function parseBody<T>(bytes: Uint8Array, schema: z.ZodType<T>): T {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch (error) {
    throw new AppError("invalid_input", `the request is not ${error instanceof SyntaxError ? "valid JSON" : "UTF-8"}`);
  }
  return readInput(json, schema);
}

/** The request's body as it comes. Errors: AppError `invalid_input` where it is none, or breaks off. */
export async function* readBytes(request: Request): AsyncGenerator<Uint8Array> {
  if (!request.body) throw new AppError("invalid_input", "the request carries no file");
  try {
    yield* request.body as unknown as AsyncIterable<Uint8Array>;
  } catch (error) {
    throw new AppError("invalid_input", "the upload broke off before its end. Nothing of it was kept; send it again", {}, { cause: error });
  }
}

function needJson(request: Request): void {
  if (!/^application\/json\b/i.test(request.headers.get("content-type") ?? ""))
    throw new AppError("wrong_type", "the request must carry JSON and say so (content-type: application/json)");
}

/** Any client input through a schema. Errors: AppError `invalid_input` naming the fields. */
export function readInput<T>(input: unknown, schema: z.ZodType<T>): T {
  const broken = brokenText(input, "");
  if (broken !== undefined) throw new AppError("invalid_input", `${broken || "input"}: not a text (it holds NUL or half a character)`);
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const faults = result.error.issues.slice(0, MOST_FAULTS).map((issue) => ({ field: issue.path.join("."), reason: issue.message }));
  throw new AppError("invalid_input", faults.map(({ field, reason }) => `${field || "input"}: ${reason}`).join("; "), { faults });
}

/** The field of the first text that is none, keys included; undefined where all are. */
function brokenText(value: unknown, field: string): string | undefined {
  if (typeof value === "string") return isWellFormed(value) ? undefined : field;
  if (typeof value !== "object" || value === null) return undefined;
  for (const [key, inner] of Object.entries(value)) {
    const found = isWellFormed(key) ? brokenText(inner, field ? `${field}.${key}` : key) : field;
    if (found !== undefined) return found;
  }
  return undefined;
}
