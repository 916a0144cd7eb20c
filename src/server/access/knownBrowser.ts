import { createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import type { Sql } from "../db";
import { readCookie, writeCookie } from "./cookie";

const COOKIE = "nigrographe-known";
const KNOWN_DAYS = 400;

/** The name of a browser that signed in before, told by a cookie that only we can have made. It opens nothing. */
export async function knownBrowser(sql: Sql, cookies: string | null): Promise<string | undefined> {
  const [name, signature] = readCookie(cookies, COOKIE)?.split(".") ?? [];
  if (!name || !signature) return undefined;
  const [found, made] = [Buffer.from(signature, "base64url"), sign(await key(sql), name)];
  return found.length === made.length && timingSafeEqual(found, made) ? name : undefined;
}

/** A cookie by which a browser is known again; the same name where it had one. */
export async function knownCookie(sql: Sql, cookies: string | null, isSecure: boolean): Promise<string> {
  const name = (await knownBrowser(sql, cookies)) ?? randomBytes(16).toString("base64url");
  return writeCookie(COOKIE, `${name}.${sign(await key(sql), name).toString("base64url")}`, KNOWN_DAYS, isSecure);
}

function sign(key: Buffer, name: string): Buffer {
  return createHmac("sha256", key).update(name).digest();
}

async function key(sql: Sql): Promise<Buffer> {
  await sql`insert into browser_key (key) values (${randomBytes(32)}) on conflict do nothing`;
  const [row] = await sql<[{ key: Buffer }]>`select key from browser_key`;
  return row.key;
}
