export type AppErrorCode =
  | "invalid_input"
  | "not_found"
  | "stale_base"
  | "not_a_picture"
  | "broken_picture"
  | "too_large"
  | "too_many"
  | "unusual_picture"
  | "damaged"
  | "unreadable"
  | "no_space"
  | "preparing";

const STATUS: Record<AppErrorCode, number> = {
  invalid_input: 400,
  not_found: 404,
  stale_base: 409,
  not_a_picture: 415,
  broken_picture: 422,
  too_large: 413,
  too_many: 409,
  unusual_picture: 422,
  damaged: 500,
  unreadable: 422,
  no_space: 507,
  preparing: 503,
};

/** A failure the client can act on. Anything else that is thrown is a bug and becomes a plain 500. */
export class AppError extends Error {
  constructor(
    readonly code: AppErrorCode,
    message: string,
    readonly details: Record<string, unknown> = {},
    options?: ErrorOptions,
  ) {
    super(message, options);
    this.name = "AppError";
  }

  get status(): number {
    return STATUS[this.code];
  }
}
