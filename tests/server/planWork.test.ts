import { randomUUID } from "node:crypto";
import { beforeAll, expect, test } from "vitest";
import { POST as postPrint } from "@/app/api/pictures/[id]/prints/route";
import { POST as postRevision } from "@/app/api/prints/[id]/revisions/route";
import { packPath } from "@/core/brush/stroke";
import { restingExposure } from "@/core/passes/exposure/exposure";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { importPicture } from "@/server/pictures/pictures";
import { getPrint, getRevision } from "@/server/prints/prints";
import { colourful, rgb16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";

// Large plans are taken in by a thread of their own, and are answered as small ones are.

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

const send = (post: typeof postRevision, id: string, body: string) =>
  post(new Request("http://localhost/", { method: "POST", headers: { "content-type": "application/json" }, body }), {
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
