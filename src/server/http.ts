import { z } from "zod";
import { CoreError } from "@/core/errors";
import { isWellFormed } from "@/core/text/text";
import { PictureError } from "@/engine/node/pictureError";
import { AppError } from "./errors";
import { needSession } from "./access/session";
import { db } from "./db";
import { JsonGuard, type JsonLimits } from "./jsonGuard";
import { isPassing } from "./jobs/passing";
import { refuseStrangers } from "./strangers";

type Params<P> = { params: Promise<P> };
type Handler<P> = (request: Request, params: P) => Promise<Response>;
type Answer<P> = (request: Request, context: Params<P>) => Promise<Response>;

const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
type Method = (typeof METHODS)[number];

/**
 * The handlers of an address, by method: the one place where errors become HTTP, as RFC 9457 problem documents, and where strangers are
 * refused. Methods without a handler are refused too.
 */
export function routes<P = Record<string, never>>(handlers: Partial<Record<Method, Handler<P>>>): Record<Method, Answer<P>> {
  return answersOf(handlers, (request) => needSession(db(), request));
}

/** The same for an address that those may ask who have not signed in. */
export function openRoutes<P = Record<string, never>>(handlers: Partial<Record<Method, Handler<P>>>): Record<Method, Answer<P>> {
  return answersOf(handlers, async () => {});
}

function answersOf<P>(
  handlers: Partial<Record<Method, Handler<P>>>,
  letIn: (request: Request) => Promise<void>,
): Record<Method, Answer<P>> {
  const allowed = METHODS.filter((method) => handlers[method]).join(", ");
  const answer =
    (handle: Handler<P> | undefined): Answer<P> =>
    async (request, context) => {
      try {
        refuseStrangers(request);
        await letIn(request);
        if (!handle) throw new AppError("wrong_method", `this address answers ${allowed || "nothing"}`, {}, undefined, { allow: allowed });
        return keptToItself(await handle(request, await context.params));
      } catch (error) {
        return keptToItself(problem(asAppError(error)));
      }
    };
  return Object.fromEntries(METHODS.map((method) => [method, answer(handlers[method])])) as Record<Method, Answer<P>>;
}

/** What says nothing else of it is neither kept by the browser nor by anything on the way. */
function keptToItself(response: Response): Response {
  if (!response.headers.has("cache-control")) response.headers.set("cache-control", "private, no-store");
  return response;
}

function asAppError(error: unknown): AppError | undefined {
  if (error instanceof AppError) return error;
  if (error instanceof PictureError) return new AppError(error.code, error.message);
  if (error instanceof CoreError && error.code === "bad_plan") return new AppError("invalid_input", error.message, error.details);
  if (isPassing(error)) {
    sayAway(error as Error);
    return new AppError("away", "the database is away for a moment. Nothing saved is lost; this is tried again");
  }
  const { code } = error as { code?: unknown };
  if (code === FOREIGN_KEY_VIOLATION)
    return new AppError("gone_meanwhile", "what this refers to was deleted for good in the meantime; nothing was changed");
  if (code === "ENOSPC" || code === "53100")
    return new AppError("no_space", "the disk is full. What is saved is safe; make room and try again");
  console.error(error);
  return undefined;
}

/** SQLSTATE. */
const FOREIGN_KEY_VIOLATION = "23503";

/** Says in the terminal why, once a second at the most: all requests meet it together. */
function sayAway({ message }: Error): void {
  const now = Date.now();
  if (now - awaySaidAt < 1000) return;
  awaySaidAt = now;
  console.warn(`the database was away: ${message}`);
}
let awaySaidAt = 0;

const PROBLEM_HEADERS = { "content-type": "application/problem+json" };

function problem(error: AppError | undefined): Response {
  const body = error
    ? { type: "about:blank", title: error.message, status: error.status, code: error.code, ...error.details }
    : { type: "about:blank", title: "Something went wrong on our side. Nothing you had saved is lost.", status: 500, code: "bug" };
  return Response.json(body, { status: body.status, headers: { ...PROBLEM_HEADERS, ...error?.headers } });
}

/** Most requests are a few words; those that carry plans, or what is kept of them, say how much they may be. */
const FEW_WORDS: JsonLimits = { bytes: 16 * 1024, values: 1000 };
/** A placement or a mix; the pins of a print. */
export const A_FEW_KILOBYTES: JsonLimits = { bytes: 128 * 1024, values: 20_000 };
/** A plan of many thousand strokes and imported masks. */
export const A_PLAN: JsonLimits = { bytes: 64 * 1024 ** 2, values: 1_000_000 };

/**
 * The request's JSON body through a schema, read no further than the limits.
 *
 * Errors  AppError `invalid_input`, for broken JSON, for text that is none and for what is nested too deeply; `too_large`; `wrong_type` for what is not said to be JSON.
 */
export async function readBody<T>(request: Request, schema: z.ZodType<T>, limits = FEW_WORDS): Promise<T> {
  if (!/^application\/json\b/i.test(request.headers.get("content-type") ?? ""))
    throw new AppError("wrong_type", "the request must carry JSON and say so (content-type: application/json)");
  const text = await readText(request, new JsonGuard(limits));
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new AppError("invalid_input", "the request is not valid JSON");
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

async function readText(request: Request, guard: JsonGuard): Promise<string> {
  if (Number(request.headers.get("content-length") ?? 0) > guard.limits.bytes) throw guard.tooLarge();
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let text = "";
  try {
    for await (const piece of (request.body ?? []) as AsyncIterable<Uint8Array>) {
      guard.take(piece);
      text += decoder.decode(piece, { stream: true });
    }
    return text + decoder.decode();
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError("invalid_input", "the request was cut off, or is not UTF-8");
  }
}

/** Any client input through a schema. Errors: AppError `invalid_input` naming the fields. */
export function readInput<T>(input: unknown, schema: z.ZodType<T>): T {
  const broken = brokenText(input, "");
  if (broken !== undefined) throw new AppError("invalid_input", `${broken || "input"}: not a text (it holds NUL or half a character)`);
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const faults = result.error.issues.map((issue) => ({ field: issue.path.join("."), reason: issue.message }));
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

/** An id from a route. Errors: AppError `not_found` for what cannot be one. */
export function readId(id: string): string {
  if (!z.uuid().safeParse(id).success) throw new AppError("not_found", "there is nothing at this address");
  return id;
}
