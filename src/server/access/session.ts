import { createHash, randomBytes } from "node:crypto";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { readCookie, writeCookie } from "./cookie";
import { hasPassphrase } from "./passphrase";

const COOKIE = "nigrographe-session";
/** One who has said the passphrase need not say it again for so long. */
const SESSION_DAYS = 30;

/** Begins a session; returns the cookie that tells it. `isSecure` where the browser came by TLS. */
export async function beginSession(sql: Sql, isSecure: boolean): Promise<string> {
  const token = randomBytes(32).toString("base64url");
  await sql`delete from session where created_at < now() - make_interval(days => ${SESSION_DAYS})`;
  await sql`insert into session (token) values (${digest(token)})`;
  return writeCookie(COOKIE, token, SESSION_DAYS, isSecure);
}

/** Ends a session, or all there are; returns the cookie that makes the browser forget its own. */
export async function endSession(sql: Sql, cookies: string | null, everywhere: boolean): Promise<string> {
  const token = readCookie(cookies, COOKIE);
  if (everywhere) await sql`delete from session`;
  else if (token) await sql`delete from session where token = ${digest(token)}`;
  return writeCookie(COOKIE, "", 0, false);
}

/** Whether these cookies open the door, or there is none. */
export async function isLetIn(sql: Sql, cookies: string | null): Promise<boolean> {
  const token = readCookie(cookies, COOKIE);
  if (token) {
    const [session] = await sql`
      select from session where token = ${digest(token)} and created_at > now() - make_interval(days => ${SESSION_DAYS})
    `;
    if (session) return true;
  }
  return !(await hasPassphrase(sql));
}

/** Errors: AppError `signed_out`. */
export async function needSession(sql: Sql, request: Request): Promise<void> {
  if (!(await isLetIn(sql, request.headers.get("cookie"))))
    throw new AppError("signed_out", "sign in first; what is unsaved stays here until then");
}

function digest(token: string): Buffer {
  return createHash("sha256").update(token).digest();
}
