import type { ByteRange } from "./blobs";

/**
 * The part of `bytes` bytes that a Range header asks for (RFC 9110, 14): undefined where all is wanted, or several parts, which are then
 * not given; "unsatisfiable" where it lies beyond them.
 */
export function byteRange(header: string | null, bytes: number): ByteRange | "unsatisfiable" | undefined {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? "");
  if (!match || (match[1] === "" && match[2] === "")) return undefined;
  const [from, to] = [match[1]!, match[2]!];
  const first = from === "" ? Math.max(bytes - Number(to), 0) : Number(from);
  const last = from === "" || to === "" ? bytes - 1 : Math.min(Number(to), bytes - 1);
  if (first >= bytes || (from === "" && Number(to) === 0)) return "unsatisfiable";
  return last < first ? undefined : { first, last };
}
