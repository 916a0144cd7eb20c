import { AppError } from "./errors";
import { settings } from "./settings";

// Who may talk to us. A page of another site can send requests here, and can have its own name resolve to this machine
// (DNS rebinding): the first is told by Origin and Sec-Fetch-Site, which no page can forge, the second by Host.

const READING = new Set(["GET", "HEAD", "OPTIONS"]);

/**
 * Refuses requests for another host than ours, and writes that another site's page sends.
 *
 * Errors  AppError `wrong_host`, `other_site`.
 */
export function refuseStrangers(request: Request): void {
  const host = request.headers.get("host");
  if (host !== null && !isOurHost(host)) throw new AppError("wrong_host", `Nigrographe does not answer to ${host}; see NIGROGRAPHE_HOSTS`);
  const site = request.headers.get("sec-fetch-site");
  if (READING.has(request.method)) return;
  const origin = request.headers.get("origin");
  const isOther = (site !== null && site !== "same-origin" && site !== "none") || (origin !== null && !isOurOrigin(origin, host));
  if (isOther) throw new AppError("other_site", "only Nigrographe's own pages may change anything here");
}

/** Whether a Host header names us: this machine by any of its own names, or a name we were told. */
export function isOurHost(host: string): boolean {
  const name = host.replace(/:\d+$/, "").toLowerCase();
  return isLoopback(name) || settings().hosts.has(name);
}

const LOOPBACK = new Set(["localhost", "127.0.0.1", "[::1]", "::1"]);

/** Whether a name means this machine and can be reached from it alone. */
export function isLoopback(name: string): boolean {
  return LOOPBACK.has(name);
}

function isOurOrigin(origin: string, host: string | null): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false; // "null": a page without an origin of its own
  }
}
