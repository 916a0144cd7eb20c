import { z } from "zod";
import { CoreError } from "@/core/errors";
import { PictureError } from "@/engine/node/pictureError";
import { AppError } from "./errors";

type Params<P> = { params: Promise<P> };

/** Wraps a route handler: the one place where errors become HTTP, as RFC 9457 problem documents. */
export function route<P = Record<string, never>>(handle: (request: Request, params: P) => Promise<Response>) {
  return async (request: Request, context: Params<P>): Promise<Response> => {
    try {
      return await handle(request, await context.params);
    } catch (error) {
      return problem(asAppError(error));
    }
  };
}

function asAppError(error: unknown): AppError | undefined {
  if (error instanceof AppError) return error;
  if (error instanceof PictureError) return new AppError(error.code, error.message);
  if (error instanceof CoreError && error.code === "bad_plan") return new AppError("invalid_input", error.message, error.details);
  console.error(error);
  return undefined;
}

function problem(error: AppError | undefined): Response {
  const body = error
    ? { type: "about:blank", title: error.message, status: error.status, code: error.code, ...error.details }
    : { type: "about:blank", title: "Something went wrong on our side. Nothing you had saved is lost.", status: 500, code: "bug" };
  return Response.json(body, { status: body.status, headers: { "content-type": "application/problem+json" } });
}

/** The request's JSON body through a schema. Errors: AppError `invalid_input`, for broken JSON too. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const json: unknown = await request.json().catch(() => {
    throw new AppError("invalid_input", "the request is not valid JSON");
  });
  return readInput(json, schema);
}

/** Any client input through a schema. Errors: AppError `invalid_input` naming the fields. */
export function readInput<T>(input: unknown, schema: z.ZodType<T>): T {
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const faults = result.error.issues.map((issue) => ({ field: issue.path.join("."), reason: issue.message }));
  throw new AppError("invalid_input", faults.map(({ field, reason }) => `${field || "input"}: ${reason}`).join("; "), { faults });
}

/** An id from a route. Errors: AppError `not_found` for what cannot be one. */
export function readId(id: string): string {
  if (!z.uuid().safeParse(id).success) throw new AppError("not_found", "there is nothing at this address");
  return id;
}
