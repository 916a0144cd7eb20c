import { NextResponse, type NextRequest } from "next/server";
import { isOurHost } from "@/server/strangers";

// Pages alone pass through here: addresses under /api refuse strangers themselves (src/server/http.ts), as what passes here is held in memory.
export const config = { matcher: "/((?!api/|_next/static/|icon).*)" };

/** Refuses names that are not ours, and lets a page run our own scripts and no other's, in no frame. */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get("host");
  if (host !== null && !isOurHost(host))
    return new NextResponse(`Nigrographe does not answer to ${host}; see NIGROGRAPHE_HOSTS.\n`, {
      status: 421,
      headers: { "content-type": "text/plain; charset=utf-8" },
    });
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString("base64");
  const policy = policyFor(nonce);
  const headers = new Headers(request.headers);
  headers.set("content-security-policy", policy); // where the renderer finds the nonce for its own scripts
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
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
