import { expect, test } from "vitest";
import * as placements from "@/app/api/placements/route";
import * as session from "@/app/api/session/route";
import { hasPassphrase, isPassphrase, setPassphrase } from "@/server/access/passphrase";
import { ownDatabase } from "./ownDatabase";

const { sql } = ownDatabase();
const PHRASE = "the dunes below the station";
type Method = "GET" | "POST" | "DELETE";
type Route = Record<Method, (request: Request, context: { params: Promise<never> }) => Promise<Response>>;

function ask(
  route: unknown,
  method: Method,
  { cookie, body, query = "", proto }: { cookie?: string; body?: object; query?: string; proto?: string } = {},
) {
  const headers: Record<string, string> = { host: "localhost", "content-type": "application/json" };
  if (cookie) headers.cookie = `other=1; ${cookie}`;
  if (proto) headers["x-forwarded-proto"] = proto;
  const init = { method, headers, ...(body && { body: JSON.stringify(body) }) };
  return (route as Route)[method](new Request(`http://localhost/api/session${query}`, init), { params: Promise.resolve({} as never) });
}
const signIn = (passphrase: string, proto?: string) => ask(session, "POST", { body: { passphrase }, ...(proto && { proto }) });
const cookieOf = (response: Response) => response.headers.get("set-cookie")!.split(";")[0]!;
const list = async (cookie?: string) => (await ask(placements, "GET", cookie ? { cookie } : {})).status;

test("where no passphrase is set none is asked for, and none is right", async () => {
  expect(await list()).toBe(200);
  expect(await hasPassphrase(sql())).toBe(false);
  expect((await signIn("anything at all")).status).toBe(401);
});

test("one that is too short is refused", async () => {
  await expect(setPassphrase(sql(), "short")).rejects.toMatchObject({ code: "invalid_input" });
  expect(await hasPassphrase(sql())).toBe(false);
});

test("once set it is asked for; a session lasts until one signs out, here or everywhere", async () => {
  await setPassphrase(sql(), PHRASE);
  expect(await list()).toBe(401);
  expect(await list("nigrographe-session=forged")).toBe(401);
  expect((await signIn(`${PHRASE} `)).status).toBe(401);
  const [one, two] = [await signIn(PHRASE), await signIn(PHRASE, "https")];
  expect(one.headers.get("set-cookie")).toMatch(/; HttpOnly; SameSite=Strict; Max-Age=2592000$/);
  expect(two.headers.get("set-cookie")).toMatch(/; Secure$/);
  expect([await list(cookieOf(one)), await list(cookieOf(two))]).toEqual([200, 200]);
  // What the database holds opens nothing.
  const [row] = await sql()<{ token: Buffer }[]>`select token from session`;
  expect(await list(`nigrographe-session=${row!.token.toString("base64url")}`)).toBe(401);
  expect((await ask(session, "DELETE", { cookie: cookieOf(one) })).status).toBe(204);
  expect([await list(cookieOf(one)), await list(cookieOf(two))]).toEqual([401, 200]);
  expect((await ask(session, "DELETE", { query: "?everywhere" })).status).toBe(401); // not by anybody
  const three = await signIn(PHRASE);
  expect((await ask(session, "DELETE", { query: "?everywhere", cookie: cookieOf(three) })).status).toBe(204);
  expect([await list(cookieOf(two)), await list(cookieOf(three))]).toEqual([401, 401]);
});

test("a session ends after a month, and with a new passphrase", async () => {
  const cookie = cookieOf(await signIn(PHRASE));
  await sql()`update session set created_at = now() - interval '31 days'`;
  expect(await list(cookie)).toBe(401);
  const fresh = cookieOf(await signIn(PHRASE));
  expect(await list(fresh)).toBe(200);
  await setPassphrase(sql(), `${PHRASE} again`);
  expect(await list(fresh)).toBe(401);
});

test("many guesses at once are no way round the waiting", async () => {
  const now = Date.now() + 1e6;
  const outcomes = await Promise.all(
    Array.from({ length: 40 }, () =>
      isPassphrase(sql(), "wrong guess", now).then(
        () => "looked at",
        () => "to wait",
      ),
    ),
  );
  expect(outcomes.filter((outcome) => outcome === "looked at").length).toBe(3);
  expect(await isPassphrase(sql(), `${PHRASE} again`, now + 60_000)).toBe(true);
});

test("wrong guesses are waited for, longer and longer, and the right one is too; then all is forgotten", async () => {
  let now = Date.now() + 1e7;
  const guess = (words: string) => isPassphrase(sql(), words, now);
  expect(await guess(`${PHRASE} again`)).toBe(true);
  for (let i = 0; i < 3; i++) expect(await guess("wrong guess")).toBe(false);
  const waits = [];
  for (let i = 0; i < 4; i++) {
    const words = await guess(`${PHRASE} again`).then(
      () => "let in",
      (error: Error) => error.message,
    );
    expect(words).toMatch(/try again in \d+ s/);
    const seconds = Number(/in (\d+) s/.exec(words)![1]);
    waits.push(seconds);
    now += 1000 * seconds;
    expect(await guess("wrong guess")).toBe(false);
  }
  expect(waits).toEqual([1, 2, 4, 8]);
  now += 60_000;
  expect(await guess(`${PHRASE} again`)).toBe(true);
  expect(await guess("wrong guess")).toBe(false);
  expect(await guess(`${PHRASE} again`)).toBe(true);
});
