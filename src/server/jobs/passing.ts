/** Codes of failures that pass by themselves: the database starting, stopping or out of connections, a network cut. */
const PASSING = new Set([
  "57P01",
  "57P02",
  "57P03",
  "53300",
  "40001",
  "40P01",
  "ECONNRESET",
  "ECONNREFUSED",
  "EPIPE",
  "CONNECTION_CLOSED",
  "CONNECTION_ENDED",
  "CONNECTION_DESTROYED",
  "CONNECT_TIMEOUT",
]);

/** A part of the work was ended in the middle, by no fault of what it worked on. */
export class CutOff extends Error {}

/** Whether trying again may help. */
export function isPassing(error: unknown): boolean {
  if (error instanceof CutOff) return true;
  const { code } = error as { code?: unknown };
  return typeof code === "string" && (PASSING.has(code) || code.startsWith("08"));
}
