/** Every way the computation refuses its input. */
export type CoreErrorCode = "bad_size" | "bad_profile" | "bad_path" | "bad_plan" | "bad_file" | "bad_zone" | "cancelled" | "cut_off";

/**
 * The one error class of the core. Callers branch on `code`; `message` is for people and
 * says what was got and what was expected; `details` is for machines.
 */
export class CoreError extends Error {
  constructor(
    readonly code: CoreErrorCode,
    message: string,
    readonly details: Record<string, unknown> = {},
    options?: ErrorOptions,
  ) {
    super(message, options);
    this.name = "CoreError";
  }
}
