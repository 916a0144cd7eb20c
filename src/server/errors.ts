export type AppErrorCode =
  | "invalid_input"
  | "not_found"
  | "stale_base"
  | "not_in_bin"
  | "not_a_picture"
  | "broken_picture"
  | "too_large"
  | "too_many"
  | "unusual_picture"
  | "damaged"
  | "unreadable"
  | "no_space"
  | "away"
  | "busy"
  | "wrong_method"
  | "wrong_type"
  | "wrong_host"
  | "other_site"
  | "id_taken"
  | "gone_meanwhile"
  | "signed_out"
  | "slow_down"
  | "preparing";

const STATUS: Record<AppErrorCode, number> = {
  invalid_input: 400,
  not_found: 404,
  stale_base: 409,
  not_in_bin: 409,
  not_a_picture: 415,
  broken_picture: 422,
  too_large: 413,
  too_many: 409,
  unusual_picture: 422,
  damaged: 500,
  unreadable: 422,
  no_space: 507,
  away: 503,
  busy: 503,
  wrong_method: 405,
  wrong_type: 415,
  wrong_host: 421,
  other_site: 403,
  id_taken: 409,
  gone_meanwhile: 409,
  signed_out: 401,
  slow_down: 429,
  preparing: 503,
};

/** A failure the client can act on. Anything else that is thrown is a bug and becomes a plain 500. */
export class AppError extends Error {
  constructor(
    readonly code: AppErrorCode,
    message: string,
    readonly details: Record<string, unknown> = {},
    options?: ErrorOptions,
    /** For the answer. */
    readonly headers: Record<string, string> = {},
  ) {
    super(message, options);
    this.name = "AppError";
  }

  get status(): number {
    return STATUS[this.code];
  }
}
