import { expect, test } from "vitest";
import * as placements from "@/app/api/placements/route";
import * as session from "@/app/api/session/route";
import { addressOf } from "@/server/access/address";
import { Guessing } from "@/server/access/guessing";
import { hasPassphrase, isPassphrase, setPassphrase } from "@/server/access/passphrase";
import { ownDatabase } from "./ownDatabase";

const { sql } = ownDatabase();
const PHRASE = "the dunes below the station";
type Method = "GET" | "POST" | "DELETE";
type Route = Record<Method, (request: Request, context: { params: Promise<never> }) => Promise<Response>>;

function ask(
  route: unknown,
  method: Method,
  { cookie, body, query = "", proto, from }: { cookie?: string; body?: object; query?: string; proto?: string; from?: string } = {},
) {
  const headers: Record<string, string> = { host: "localhost", "content-type": "application/json" };
  if (cookie) headers.cookie = `other=1; ${cookie}`;
  if (proto) headers["x-forwarded-proto"] = proto;
  if (from) headers["x-nigrographe-address"] = from;
  const init = { method, headers, ...(body && { body: JSON.stringify(body) }) };
  return (route as Route)[method](new Request(`http://localhost/api/session${query}`, init), { params: Promise.resolve({} as never) });
}
const signIn = (passphrase: string, proto?: string, from = "198.51.100.1", cookie?: string) =>
  ask(session, "POST", { body: { passphrase }, from, ...(proto && { proto }), ...(cookie && { cookie }) });
const HERE = { address: "192.0.2.7" };
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
  expect(one.headers.getSetCookie()[0]).toMatch(/; HttpOnly; SameSite=Strict; Max-Age=2592000$/);
  for (const cookie of two.headers.getSetCookie()) expect(cookie).toMatch(/; Secure$/);
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
      isPassphrase(sql(), "wrong guess", HERE, now).then(
        () => "looked at",
        () => "to wait",
      ),
    ),
  );
  expect(outcomes.filter((outcome) => outcome === "looked at").length).toBe(3);
  expect(await isPassphrase(sql(), `${PHRASE} again`, HERE, now + 60_000)).toBe(true);
});

test("wrong guesses are waited for, longer and longer, and the right one is too; then all is forgotten", async () => {
  let now = Date.now() + 1e7;
  const guess = (words: string) => isPassphrase(sql(), words, HERE, now);
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

test("a browser that signed in before always gets its try, however many guess; so does, once a minute, any address", async () => {
  const phrase = `${PHRASE} again`;
  const known = (await signIn(phrase)).headers.getSetCookie()[1]!.split(";")[0]!;
  expect(known).toMatch(/^nigrographe-known=/);
  const guessFrom = async (from: string, words = "wrong guess", cookie?: string) => (await signIn(words, undefined, from, cookie)).status;
  for (let i = 0; i < 12; i++) for (const from of ["203.0.113.1", "203.0.113.2"]) await guessFrom(from);
  expect([await guessFrom("203.0.113.1", phrase), await guessFrom("203.0.113.2", phrase)]).toEqual([429, 429]);
  // One of them guesses on as if it were known: not with a cookie that was made up, or of another name.
  const forged = known.replace(/=./, (start) => (start === "=A" ? "=B" : "=A"));
  for (const cookie of [forged, "nigrographe-known=me.mine", "nigrographe-known=.", "nigrographe-known=x"])
    expect(await guessFrom("203.0.113.1", phrase, cookie)).toBe(429);
  expect(await list(known)).toBe(401); // it opens nothing
  expect(await guessFrom("203.0.113.1", phrase, known)).toBe(204); // behind the very address that guesses
  for (let i = 0; i < 12; i++) await guessFrom("203.0.113.1");
  expect(await guessFrom("198.51.100.77", phrase)).toBe(204);
  // A known one that guesses waits for itself alone.
  for (let i = 0; i < 3; i++) expect(await guessFrom("198.51.100.78", "wrong guess", known)).toBe(401);
  expect(await guessFrom("198.51.100.78", phrase, known)).toBe(429);
  expect(await guessFrom("198.51.100.79", phrase)).toBe(204);
});

test("two who guess are as slow as one: in an hour no address is looked at more often than once a minute, but for the first few", () => {
  const guessing = new Guessing();
  const looked = new Map<string, number>();
  for (let now = 0; now < 3_600_000; now += 500)
    for (const address of ["a", "b"]) {
      try {
        guessing.needTurn({ address }, now);
      } catch {
        continue;
      }
      guessing.note({ address }, false, now);
      looked.set(address, (looked.get(address) ?? 0) + 1);
    }
  for (const count of looked.values()) expect(count).toBeLessThanOrEqual(60 + 10);
  // And one who comes by when they have guessed for an hour has his turn at once.
  expect(() => guessing.needTurn({ address: "c" }, 3_600_001)).not.toThrow();
  expect(() => guessing.needTurn({ browser: "known" }, 3_600_001)).not.toThrow();
});

test("the memory of who guessed is bounded, and keeps those that guessed last", () => {
  const guessing = new Guessing();
  for (let i = 0; i < 3; i++) guessing.note({ address: "at it" }, false, 0);
  for (let i = 0; i < 30_000; i++) {
    guessing.note({ address: `one of many ${i}` }, false, 0);
    if (i % 5000 === 0) guessing.note({ address: "at it" }, false, 0);
  }
  expect(() => guessing.needTurn({ address: "at it" }, 10)).toThrow(/try again/);
});

test.each([
  ["203.0.113.5", undefined, "203.0.113.5"],
  ["::ffff:203.0.113.5", undefined, "203.0.113.5"],
  ["203.0.113.5", "198.51.100.1", "203.0.113.5"],
  ["127.0.0.1", "198.51.100.1, 203.0.113.9", "203.0.113.9"],
  ["::1", "2001:db8:1:2:3:4:5:6", "2001:db8:1:2::/64"],
  ["2001:db8:1:2::9", undefined, "2001:db8:1:2::/64"],
  ["2001:db8::9", undefined, "2001:db8:0:0::/64"],
  [undefined, undefined, "unknown"],
])("who comes from %s, told to be %s, is %s", (remoteAddress, forwarded, address) => {
  expect(addressOf({ socket: { remoteAddress }, headers: forwarded ? { "x-forwarded-for": forwarded } : {} })).toBe(address);
});
