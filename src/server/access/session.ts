import { createHash, randomBytes } from "node:crypto";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { hasPassphrase } from "./passphrase";

const COOKIE = "nigrographe-session";
/** One who has said the passphrase need not say it again for so long. */
const SESSION_DAYS = 30;

/** Begins a session; returns the cookie that tells it. `isSecure` where the browser came by TLS. */
export async function beginSession(sql: Sql, isSecure: boolean): Promise<string> {
  const token = randomBytes(32).toString("base64url");
  await sql`delete from session where created_at < now() - make_interval(days => ${SESSION_DAYS})`;
  await sql`insert into session (token) values (${digest(token)})`;
  return cookie(token, SESSION_DAYS * 86_400, isSecure);
}

/** Ends a session, or all there are; returns the cookie that makes the browser forget its own. */
export async function endSession(sql: Sql, cookies: string | null, everywhere: boolean): Promise<string> {
  const token = tokenIn(cookies);
  if (everywhere) await sql`delete from session`;
  else if (token) await sql`delete from session where token = ${digest(token)}`;
  return cookie("", 0, false);
}

/** Whether these cookies open the door, or there is none. */
export async function isLetIn(sql: Sql, cookies: string | null): Promise<boolean> {
  const token = tokenIn(cookies);
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

function tokenIn(cookies: string | null): string | undefined {
  const found = cookies?.split(";").find((each) => each.trim().startsWith(`${COOKIE}=`));
  return found?.trim().slice(COOKIE.length + 1) || undefined;
}

function cookie(value: string, maxAge: number, isSecure: boolean): string {
  return `${COOKIE}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${maxAge}${isSecure ? "; Secure" : ""}`;
}

function digest(token: string): Buffer {
  return createHash("sha256").update(token).digest();
}
