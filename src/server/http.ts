import { z } from "zod";
import { CoreError } from "@/core/errors";
import { PictureError } from "@/engine/node/pictureError";
import { AppError } from "./errors";
import { needSession } from "./access/session";
import { db } from "./db";
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

/** An id from a route. Errors: AppError `not_found` for what cannot be one. */
export function readId(id: string): string {
  if (!z.uuid().safeParse(id).success) throw new AppError("not_found", "there is nothing at this address");
  return id;
}
