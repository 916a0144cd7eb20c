import { restingExposure } from "@/core/passes/exposure/fields";
import { randomUUID } from "node:crypto";
import { beforeAll, expect, test } from "vitest";
import { POST as postPrint } from "@/app/api/pictures/[id]/prints/route";
import { POST as postRevision } from "@/app/api/prints/[id]/revisions/route";
import { GET as getStep } from "@/app/api/prints/[id]/revisions/[revision]/route";
import { packPath } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { importPicture } from "@/server/pictures/pictures";
import { readRevision } from "@/server/prints/planWork";
import { getPrint, getRevision } from "@/server/prints/prints";
import { colourful, rgb16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";

// Large plans are taken in and read by a thread of their own, and are answered as small ones are.

const { sql } = ownDatabase();
let [pictureId, printId] = ["", ""];
beforeAll(async () => {
  const { picture, printId: print } = await importPicture(sql(), "a.png", pieces(await rgb16(colourful(30, 20), 30, 20).png().toBuffer()));
  [pictureId, printId] = [picture.id, print];
});

function painted(count: number, points = 8): Plan {
  const path = (n: number) =>
    packPath(Array.from({ length: points }, (_, k) => ({ x: 0.01 + ((n + k) % 97) / 100, y: 0.5 + 0.01 * Math.sin(k), pressure: 1 })));
  const strokes = Array.from({ length: count }, (_, n) => {
    return { radius: 0.02, hardness: 0.3, flow: 0.1, pressure: "none", erase: false, path: path(n), burns: true, ceiling: 0.5 } as const;
  });
  const plan = defaultPlan();
  plan.passes.push({
    ...restingPass("exposure", "painted", "Painted"),
    move: { kind: "exposure", ...restingExposure(), strokes: [...strokes] },
  });
  return plan;
}

const send = (post: typeof postRevision, id: string, body: string, headers: Record<string, string> = {}) =>
  post(new Request("http://localhost/", { method: "POST", headers: { "content-type": "application/json", ...headers }, body }), {
    params: Promise.resolve({ id }),
  });
const save = (step: object) => send(postRevision, printId, JSON.stringify(step));

test("a plan of thousands of strokes is saved and read as it was sent, and made a print of", async () => {
  const plan = painted(3000);
  expect(JSON.stringify(plan).length).toBeGreaterThan(300_000);
  const { head } = await getPrint(sql(), printId);
  const step = { id: randomUUID(), base: head, label: "Painted", plan };
  expect((await save(step)).status).toBe(204);
  expect((await save(step)).status).toBe(204); // sent again
  expect((await getPrint(sql(), printId)).head).toBe(step.id);
  expect((await getRevision(sql(), printId, step.id)).plan).toEqual(plan);
  const made = await send(postPrint, pictureId, JSON.stringify({ plan, name: "From a file" }));
  expect(made.status).toBe(201);
  const print = (await made.json()) as { id: string; head: string; name: string };
  expect(print.name).toBe("From a file");
  expect((await getRevision(sql(), print.id, print.head)).plan).toEqual(plan);
});

test("a plan of thousands of strokes is read back as JSON, and a small step does not wait for it", async () => {
  const plan = painted(15_000, 60);
  const large = (await (await send(postPrint, pictureId, JSON.stringify({ plan }))).json()) as { id: string; head: string };
  const small = (await (await send(postPrint, pictureId, "{}")).json()) as { id: string; head: string };
  const read = (id: string, revision: string) => getStep(new Request("http://localhost/"), { params: Promise.resolve({ id, revision }) });
  const ended: string[] = [];
  const answer = read(large.id, large.head).then((found) => (ended.push("large"), found));
  const own = await read(small.id, small.head).then((found) => (ended.push("small"), found));
  const body = (await (await answer).json()) as { id: string; plan: Plan };
  expect(ended).toEqual(["small", "large"]);
  expect([(await answer).headers.get("content-type"), body.id]).toEqual(["application/json", large.head]);
  expect(body.plan).toEqual(plan);
  expect(((await own.json()) as { plan: Plan }).plan).toEqual(defaultPlan("PNG"));
  expect((await readRevision(large.id, large.head)).plan).toEqual(plan);
  expect((await read(large.id, randomUUID())).status).toBe(404);
});

test("more than there is room for is refused unread, and taken when it is sent again", async () => {
  const body = `{"id":"${"x".repeat(20e6)}"}`;
  const answers = await Promise.all([1, 2, 3].map(() => send(postRevision, printId, body, { "content-length": `${body.length}` })));
  expect(answers.map(({ status }) => status).toSorted((a, b) => a - b)).toEqual([400, 503, 503]);
  const busy = answers.find(({ status }) => status === 503)!;
  expect([busy.headers.get("connection"), busy.headers.get("retry-after"), ((await busy.json()) as { code: string }).code]).toEqual([
    "close",
    "2",
    "busy",
  ]);
  expect((await send(postRevision, printId, body, { "content-length": `${body.length}` })).status).toBe(400);
});

test("what is refused is refused with its own code and details", async () => {
  const plan = painted(3000);
  const { head } = await getPrint(sql(), printId);
  const problem = async (answer: Response) => (await answer.json()) as { code: string; head?: string; title: string };
  const stale = await save({ id: randomUUID(), base: randomUUID(), label: "Stale", plan });
  expect([stale.status, await problem(stale)]).toMatchObject([409, { code: "stale_base", head }]);
  const taken = await save({ id: head, base: head, label: "Taken", plan });
  expect([taken.status, await problem(taken)]).toMatchObject([409, { code: "id_taken" }]);
  const broken = await send(postRevision, printId, `${JSON.stringify({ id: randomUUID(), base: head, label: "Broken", plan })}}`);
  expect([broken.status, await problem(broken)]).toMatchObject([400, { code: "invalid_input", title: "the request is not valid JSON" }]);
  plan.passes[0]!.strength = -1;
  const wrong = await save({ id: randomUUID(), base: head, label: "Wrong", plan });
  expect([wrong.status, (await problem(wrong)).title]).toMatchObject([400, expect.stringContaining("plan.passes.0.strength")]);
  const nowhere = await send(
    postRevision,
    randomUUID(),
    JSON.stringify({ id: randomUUID(), base: head, label: "Nowhere", plan: painted(3000) }),
  );
  expect(nowhere.status).toBe(404);
});

test("a small step does not wait for a large one", async () => {
  const other = (await (await send(postPrint, pictureId, JSON.stringify({ name: "Small" }))).json()) as { id: string; head: string };
  const { head } = await getPrint(sql(), printId);
  const ended: string[] = [];
  const large = save({ id: randomUUID(), base: head, label: "Large", plan: painted(15_000, 60) }).then(({ status }) =>
    ended.push(`large ${status}`),
  );
  const small = { id: randomUUID(), base: other.head, label: "Small", plan: defaultPlan() };
  await send(postRevision, other.id, JSON.stringify(small)).then(({ status }) => ended.push(`small ${status}`));
  await large;
  expect(ended).toEqual(["small 204", "large 204"]);
});
