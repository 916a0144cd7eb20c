import { Passphrase } from "@/contracts/api";
import { ADDRESS_HEADER } from "@/server/access/address";
import { knownBrowser, knownCookie } from "@/server/access/knownBrowser";
import { isPassphrase } from "@/server/access/passphrase";
import { beginSession, endSession, needSession } from "@/server/access/session";
import { db } from "@/server/db";
import { AppError } from "@/server/errors";
import { readBody } from "@/server/body";
import { openRoutes } from "@/server/http";

export const { GET, POST, PUT, PATCH, DELETE } = openRoutes({
  /** Signs in. */
  POST: async (request) => {
    const { passphrase } = await readBody(request, Passphrase);
    const cookies = request.headers.get("cookie");
    const browser = await knownBrowser(db(), cookies);
    const guesser = browser === undefined ? { address: request.headers.get(ADDRESS_HEADER) ?? "unknown" } : { browser };
    if (!(await isPassphrase(db(), passphrase, guesser))) throw new AppError("signed_out", "that is not the passphrase");
    const isSecure = request.headers.get("x-forwarded-proto") === "https";
    const headers = new Headers();
    headers.append("set-cookie", await beginSession(db(), isSecure));
    headers.append("set-cookie", await knownCookie(db(), cookies, isSecure));
    return new Response(null, { status: 204, headers });
  },
  /** Signs out; with ?everywhere all browsers. */
  DELETE: async (request) => {
    const everywhere = new URL(request.url).searchParams.has("everywhere");
    if (everywhere) await needSession(db(), request);
    const cookie = await endSession(db(), request.headers.get("cookie"), everywhere);
    return new Response(null, { status: 204, headers: { "set-cookie": cookie } });
  },
});
