import { NextResponse, type NextRequest } from "next/server";
import { isLetIn } from "@/server/access/session";
import { db } from "@/server/db";
import { isPassing } from "@/server/jobs/passing";
import { isOurHost } from "@/server/strangers";

// Pages alone pass through here: addresses under /api refuse strangers themselves (src/server/http.ts), as what passes here is held in
// memory.
export const config = { matcher: "/((?!api/|_next/static/|icon).*)" };

const SIGN_IN = "/sign-in";

/**
 * Refuses names that are not ours, asks for the passphrase where there is one, and lets a page run our own scripts and no other's, in no
 * frame.
 */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const host = request.headers.get("host");
  if (host !== null && !isOurHost(host)) return said(421, `Nigrographe does not answer to ${host}; see NIGROGRAPHE_HOSTS.`);
  const { pathname, search } = request.nextUrl;
  let isIn: boolean;
  try {
    isIn = pathname === SIGN_IN || (await isLetIn(db(), request.headers.get("cookie")));
  } catch (error) {
    if (!isPassing(error)) throw error;
    return said(503, "The database is away for a moment. Nothing saved is lost; load this page again.");
  }
  if (!isIn) {
    // The address as the browser knows it: behind a reverse proxy it is not the one we listen on.
    const scheme = request.headers.get("x-forwarded-proto") === "https" ? "https" : "http";
    const there = new URL(SIGN_IN, `${scheme}://${host ?? request.nextUrl.host}`);
    there.searchParams.set("to", pathname + search);
    return NextResponse.redirect(there);
  }
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString("base64");
  const policy = policyFor(nonce);
  const headers = new Headers(request.headers);
  headers.set("content-security-policy", policy); // where the renderer finds the nonce for its own scripts
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}

function said(status: number, words: string): NextResponse {
  return new NextResponse(`${words}\n`, { status, headers: { "content-type": "text/plain; charset=utf-8" } });
}

function policyFor(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "style-src 'self' 'unsafe-inline'", // the component library writes its styles into the page
    "img-src 'self' blob: data:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}
