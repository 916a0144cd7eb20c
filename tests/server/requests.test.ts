import { randomUUID } from "node:crypto";
import fc from "fast-check";
import { beforeAll, describe, expect, test } from "vitest";
import * as nothing from "@/app/api/[[...path]]/route";
import * as exportRoute from "@/app/api/exports/[id]/route";
import * as fileRoute from "@/app/api/exports/[id]/file/route";
import * as levels from "@/app/api/pictures/[id]/levels/route";
import * as picturePrints from "@/app/api/pictures/[id]/prints/route";
import * as pictureRoute from "@/app/api/pictures/[id]/route";
import * as picturesRoute from "@/app/api/pictures/route";
import * as placement from "@/app/api/placements/[id]/route";
import * as placementsRoute from "@/app/api/placements/route";
import * as printExports from "@/app/api/prints/[id]/exports/route";
import * as head from "@/app/api/prints/[id]/head/route";
import * as revision from "@/app/api/prints/[id]/revisions/[revision]/route";
import * as revisions from "@/app/api/prints/[id]/revisions/route";
import * as printRoute from "@/app/api/prints/[id]/route";
import * as thumbnail from "@/app/api/prints/[id]/thumbnail/route";
import * as bin from "@/app/api/bin/route";
import * as copies from "@/app/api/prints/[id]/copies/route";
import * as source from "@/app/api/pictures/[id]/thumbnail/route";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { importPicture } from "@/server/pictures/pictures";
import { getPrint, listRevisions } from "@/server/prints/prints";
import { LEAST_ROOM_BYTES, needRoom } from "@/server/space";
import { colourful, rgb16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";
import { allCards } from "./cards";

const { sql } = ownDatabase();
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
type Method = (typeof METHODS)[number];
type Handler = (request: Request, context: { params: Promise<never> }) => Promise<Response>;
const ROUTES = Object.entries({
  nothing,
  exportRoute,
  fileRoute,
  levels,
  picturePrints,
  pictureRoute,
  picturesRoute,
  placement,
  placementsRoute,
  printExports,
  head,
  revision,
  revisions,
  printRoute,
  thumbnail,
  bin,
  copies,
  source,
}) as [string, Record<Method, Handler>][];

let pictureId = "";
let printId = "";
beforeAll(async () => {
  const { picture, printId: print } = await importPicture(sql(), "a.png", pieces(await rgb16(colourful(60, 40), 60, 40).png().toBuffer()));
  [pictureId, printId] = [picture.id, print];
});

function ask(
  route: Record<Method, Handler>,
  method: Method,
  params: object,
  init: RequestInit & { query?: string } = {},
): Promise<Response> {
  const { query = "", ...rest } = init;
  const request = new Request(`http://localhost/api/x${query}`, {
    method,
    ...rest,
    ...(rest.body ? { duplex: "half" } : {}),
  } as RequestInit);
  return route[method](request, { params: Promise.resolve(params as never) });
}
const json = (body: unknown): RequestInit => ({
  headers: { "content-type": "application/json" },
  body: typeof body === "string" ? body : JSON.stringify(body),
});

async function expectProblem(response: Response, status?: number) {
  expect(response.headers.get("content-type")).toBe("application/problem+json");
  const body = (await response.json()) as { status: number; title: string; code: string };
  expect(body.status).toBe(response.status);
  expect(body.title.length).toBeGreaterThan(5);
  expect(response.status).toBeGreaterThanOrEqual(400);
  expect(response.status).toBeLessThan(500);
  if (status) expect(response.status).toBe(status);
  return body;
}

test("every address answers methods it does not have, and addresses that are none, with a problem", async () => {
  for (const [, route] of ROUTES) {
    for (const method of METHODS) {
      const response = await ask(route, method, { id: "none", revision: "none", path: ["none"] });
      expect(response.headers.get("cache-control")).toBe("private, no-store");
      if (response.ok) continue; // a list
      await expectProblem(response);
      if (response.status === 405) expect(response.headers.get("allow")).not.toContain(method);
    }
  }
  await expectProblem(await ask(printRoute as never, "GET", { id: printId }), 405);
});

describe("bodies", () => {
  const change = (init: RequestInit) => ask(printRoute as never, "PATCH", { id: printId }, init);
  test("longer than an address takes are refused, told beforehand or not, and not read on", async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 65536;
        controller.enqueue(new Uint8Array(65536).fill(0x20));
      },
    });
    await expectProblem(await change({ ...json(""), body: endless }), 413);
    expect(sent).toBeLessThan(2e6);
    await expectProblem(await change({ body: "{}", headers: { "content-type": "application/json", "content-length": "999999999" } }), 413);
  });
  test("nested too deeply, or of too many values, are refused by every address that takes any, before they are read", async () => {
    const deep = "[".repeat(100_000) + "]".repeat(100_000);
    const many = `[${"1,".repeat(1_100_000)}1]`;
    let taking = 0;
    for (const [, route] of ROUTES)
      for (const method of ["POST", "PUT", "PATCH"] as const)
        for (const [body, status] of [
          [deep, 400],
          [many, 413],
        ] as const) {
          const response = await ask(route, method, { id: printId, revision: printId, path: ["none"] }, json(body));
          if (response.ok || [404, 405, 415].includes(response.status)) continue; // takes none, or files
          const { code } = await expectProblem(response);
          // A long body is refused by its length where that is known.
          expect([status, 413]).toContain(response.status);
          expect(["invalid_input", "too_large"]).toContain(code);
          taking++;
        }
    expect(taking).toBeGreaterThan(15);
  });
  test.each([
    ["not said to be JSON", { body: "{}" }, 415],
    ["said to be a form", { body: "{}", headers: { "content-type": "text/plain" } }, 415],
    ["broken JSON", json("{"), 400],
    ["none", { headers: { "content-type": "application/json" } }, 400],
    ["not UTF-8", { ...json(""), body: new Uint8Array([0x22, 0xff, 0xfe, 0x22]) }, 400],
    ["NUL in a text", json({ name: "a\0b" }), 400],
    ["half a character", json('{"name":"a\\ud800"}'), 400],
    ["NUL in a key", json({ "na\0me": "x" }), 400],
    ["a field that is none", json({ nam: "x" }), 400],
    ["only white space for a name", json({ name: " \t " }), 400],
  ] as [string, RequestInit, number][])("%s", async (_, init, status) => {
    await expectProblem(await change(init), status);
  });
  test("a name that is too long is cut between characters, and can be kept", async () => {
    const answer = await change(json({ name: `${"x".repeat(119)}👨‍👩‍👧` }));
    expect([answer.status, ((await answer.json()) as { name: string }).name]).toEqual([200, "x".repeat(119)]);
  });
});

describe("steps", () => {
  const send = (print: string, body: object) => ask(revisions as never, "POST", { id: print }, json(body));
  test("the same id again does nothing, with other content it is refused, for another print too", async () => {
    const { head: base } = await getPrint(sql(), printId);
    const step = { id: randomUUID(), base, label: "One", plan: defaultPlan() };
    expect((await send(printId, step)).status).toBe(204);
    expect((await send(printId, step)).status).toBe(204);
    expect((await listRevisions(sql(), printId)).length).toBe(2);
    await expectProblem(await send(printId, { ...step, label: "Two" }), 409);
    const other = defaultPlan();
    other.mix.weights.red = 0.4;
    expect(await expectProblem(await send(printId, { ...step, plan: other }), 409)).toMatchObject({ code: "id_taken" });
    const added = (await (await ask(picturePrints as never, "POST", { id: pictureId }, json({}))).json()) as { id: string; head: string };
    await expectProblem(await send(added.id, { ...step, base: added.head }), 409);
    // Steps of one print are none of another's.
    await expectProblem(await ask(head as never, "PUT", { id: added.id }, json({ base: added.head, to: step.id })), 404);
    await expectProblem(await ask(revision as never, "GET", { id: added.id, revision: step.id }), 404);
    await expectProblem(
      await ask(printExports as never, "POST", { id: added.id }, json({ settings: { format: "tiff16" }, revision: step.id })),
      404,
    );
  });
});

describe("strangers", () => {
  const rename = (headers: Record<string, string>) =>
    ask(
      printRoute as never,
      "PATCH",
      { id: printId },
      { ...json({ name: "Mine" }), headers: { "content-type": "application/json", host: "localhost:3210", ...headers } },
    );
  test.each([
    ["our own page", { origin: "http://localhost:3210", "sec-fetch-site": "same-origin" }, 200],
    ["a command line", {}, 200],
    ["another site", { origin: "https://elsewhere.example", "sec-fetch-site": "cross-site" }, 403],
    ["another port of this machine", { origin: "http://localhost:9", "sec-fetch-site": "same-site" }, 403],
    ["a page without an origin", { origin: "null" }, 403],
    ["an old browser's other site", { origin: "https://elsewhere.example" }, 403],
    [
      "a name that was made to point here",
      { host: "elsewhere.example", origin: "http://elsewhere.example", "sec-fetch-site": "same-origin" },
      421,
    ],
    ["this machine by its number", { host: "127.0.0.1:3210", origin: "http://127.0.0.1:3210" }, 200],
    ["this machine by its other number", { host: "[::1]:3210", origin: "http://[::1]:3210" }, 200],
  ] as [string, Record<string, string>, number][])("%s", async (_, headers, status) => {
    expect((await rename(headers)).status).toBe(status);
  });
  test("may not read either under a name that is not ours", async () => {
    await expectProblem(await ask(placementsRoute as never, "GET", {}, { headers: { host: "elsewhere.example" } }), 421);
  });
});

test("what needs room is not begun with less than 100 MB left, and says so", async () => {
  await needRoom("The import", async () => LEAST_ROOM_BYTES);
  await expect(needRoom("The import", async () => 42.5 * 1024 ** 2)).rejects.toMatchObject({
    code: "no_space",
    message: expect.stringContaining("42 MB left"),
  });
});

test("a row that cannot be read is shown as what it is, beside the others", async () => {
  const { picture } = await importPicture(sql(), "odd.png", pieces(await rgb16(colourful(20, 20), 20, 20).png().toBuffer()));
  await sql()`update picture set facts = '{"format": 7, "capture": {"Lens": {"type": "Buffer"}}}' where id = ${picture.id}`;
  await sql()`update print set pins = '[{"x": "left"}]' where picture_id = ${picture.id}`;
  const all = await allCards(sql());
  expect(all.length).toBe(2);
  const card = all.find(({ id }) => id === picture.id)!;
  expect((await getPrint(sql(), card.prints[0]!.id)).pins).toEqual([]);
  expect(card.facts.notes[0]).toMatch(/Unreadable record/);
});

test("whatever is asked of any address is answered with what it is or a problem, never a failure of ours", async () => {
  const word = fc.oneof(
    fc.constantFrom("none", "../..", "%00", "\0", "\ud800", "'; drop table print; --", "x".repeat(3000)),
    fc.uuid(),
    fc.string({ unit: "binary" }),
    fc.constantFrom("PICTURE", "PRINT"),
  );
  const value = fc.oneof(
    fc.jsonValue({ maxDepth: 3 }),
    fc.record({ id: word, base: word, to: word, label: word, name: word, plan: fc.jsonValue() }, { requiredKeys: [] }),
  );
  const text = fc.oneof(
    value.map((json) => JSON.stringify(json)),
    fc.string({ unit: "binary" }),
  );
  const known = (id: string) => (id === "PICTURE" ? pictureId : id === "PRINT" ? printId : id);
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...ROUTES),
      fc.constantFrom(...METHODS),
      word,
      word,
      text,
      fc.dictionary(fc.constantFrom("level", "x", "y", "width", "height", "of", "name"), fc.oneof(word, fc.integer().map(String))),
      async ([name, route], method, id, other, body, query) => {
        if (name === "picturesRoute") return; // takes any bytes: see the tests of pictures
        const search = `?${new URLSearchParams(query as Record<string, string>)}`;
        const init = method === "GET" ? { query: search } : { ...json(body), query: search };
        const response = await ask(route, method, { id: known(id), revision: known(other), path: [id] }, init);
        if (response.status >= 400) await expectProblem(response);
        else await response.arrayBuffer();
      },
    ),
    { seed: 171, numRuns: 600 },
  );
});
