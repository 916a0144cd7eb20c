import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { ExportSettings } from "@/contracts/exportSettings";
import { requestExport } from "@/server/exports/exports";
import { routes } from "@/server/http";
import { deleteForGood, readBin } from "@/server/bin/bin";
import { changePicture, getPicture, importPicture } from "@/server/pictures/pictures";
import { addPrint, appendRevision, changePrint, copyPrint, getPrint, getRevision, listRevisions, moveHead } from "@/server/prints/prints";
import { colourful, rgb8, to8 } from "../madePictures";
import { allCards } from "./cards";
import { ownDatabase, pieces } from "./ownDatabase";

const { sql } = ownDatabase();
const bring = async (name: string) => {
  const png = rgb8(to8(colourful(30, 20)), 30, 20).png();
  return importPicture(sql(), name, pieces(await png.toBuffer()));
};
const binned = async () =>
  (await readBin(sql())).map(({ kind, name, pictureName, prints }) => `${kind} ${name} of ${pictureName}, ${prints}`);

/** Steps a, b on a, undone, c on a: the print stands at c. */
async function worked(printId: string): Promise<void> {
  let { head } = await getPrint(sql(), printId);
  const step = async (label: string, base: string) => {
    const plan = defaultPlan();
    plan.passes[0]!.name = label;
    const id = randomUUID();
    await appendRevision(sql(), printId, { id, base, label, plan });
    return id;
  };
  const a = await step("a", head);
  head = await step("b", a);
  await moveHead(sql(), printId, { base: head, to: a });
  await step("c", a);
  await changePrint(sql(), printId, { pins: [{ x: 0.25, y: 0.5 }] });
}

test("a copy of a print has its plan, its pins and its whole history under names of their own, and goes its own way", async () => {
  const { printId, picture } = await bring("copied.png");
  await worked(printId);
  const [from, copy] = [await getPrint(sql(), printId), await copyPrint(sql(), printId)];
  expect(copy).toMatchObject({ name: "Print 1, copy", pictureId: picture.id, pins: from.pins });
  const [theirs, own] = [await listRevisions(sql(), printId), await listRevisions(sql(), copy.id)];
  const shape = (steps: typeof own) =>
    steps.map(({ label, parent, createdAt }) => [label, steps.findIndex(({ id }) => id === parent), createdAt]);
  expect(shape(own)).toEqual(shape(theirs));
  expect(own.map(({ label }) => label)).toEqual(["As brought in", "a", "b", "c"]);
  expect(own.findIndex(({ id }) => id === copy.head)).toBe(3);
  expect(new Set([...own, ...theirs].map(({ id }) => id)).size).toBe(8);
  expect((await getRevision(sql(), copy.id, copy.head)).plan).toEqual((await getRevision(sql(), printId, from.head)).plan);

  await appendRevision(sql(), copy.id, { id: randomUUID(), base: copy.head, label: "on its own", plan: defaultPlan() });
  expect(await getPrint(sql(), printId)).toEqual(from);
  await changePrint(sql(), printId, { deleted: true });
  await deleteForGood(sql(), { print: printId });
  expect(await listRevisions(sql(), copy.id)).toHaveLength(5);
});

test("the name of a copy is never too long to be kept, and what is not there cannot be copied", async () => {
  const { printId } = await bring("long.png");
  await changePrint(sql(), printId, { name: "x".repeat(120) });
  expect((await copyPrint(sql(), printId)).name).toBe(`${"x".repeat(114)}, copy`);
  await expect(copyPrint(sql(), randomUUID())).rejects.toMatchObject({ code: "not_found" });
});

test("what is deleted lies in the bin: pictures with all their prints, single prints, newest first, until it is brought back", async () => {
  const [hut, dunes] = [await bring("hut.png"), await bring("dunes.png")];
  const second = await addPrint(sql(), hut.picture.id, defaultPlan());
  const third = await addPrint(sql(), dunes.picture.id, defaultPlan());
  await changePrint(sql(), second.id, { deleted: true });
  await changePrint(sql(), third.id, { deleted: true });
  await changePicture(sql(), dunes.picture.id, { deleted: true });
  expect(await binned()).toEqual(["picture Dunes of Dunes, 1", "print Print 2 of Hut, 1"]);
  expect((await readBin(sql()))[0]!.shown).toEqual({ print: dunes.printId, head: (await getPrint(sql(), dunes.printId)).head });

  await changePicture(sql(), dunes.picture.id, { deleted: false });
  expect(await binned()).toEqual(["print Print 2 of Dunes, 1", "print Print 2 of Hut, 1"]);
  await changePrint(sql(), second.id, { deleted: false });
  await changePrint(sql(), third.id, { deleted: false });
  expect(await binned()).toEqual([]);
  const cards = await allCards(sql());
  expect(cards.filter(({ name }) => name === "Hut" || name === "Dunes").map(({ prints }) => prints.length)).toEqual([2, 2]);
});

test("only what lies in the bin is deleted for good, and nothing else goes with it", async () => {
  const { picture, printId } = await bring("gone.png");
  const other = await addPrint(sql(), picture.id, defaultPlan());
  for (const meant of [{ picture: picture.id }, { print: printId }, { picture: randomUUID() }, { print: randomUUID() }])
    await expect(deleteForGood(sql(), meant)).rejects.toMatchObject({ code: "not_in_bin" });
  await changePrint(sql(), printId, { deleted: true });
  await deleteForGood(sql(), { print: printId });
  await expect(getPrint(sql(), printId)).rejects.toMatchObject({ code: "not_found" });
  expect((await getPrint(sql(), other.id)).name).toBe("Print 2");

  const bystander = await bring("bystander.png");
  await changePrint(sql(), bystander.printId, { deleted: true });
  await changePicture(sql(), picture.id, { deleted: true });
  await deleteForGood(sql(), { picture: picture.id });
  await expect(getPicture(sql(), picture.id)).rejects.toMatchObject({ code: "not_found" });
  await expect(getPrint(sql(), other.id)).rejects.toMatchObject({ code: "not_found" });
  expect(await binned()).toEqual(["print Print 1 of Bystander, 1"]);
});

test("deleted for good while it is exported, printed and copied: each is done, not found, or told that it went meanwhile", async () => {
  const jpeg = ExportSettings.parse({ format: "jpeg" });
  const statuses = new Set<number>();
  for (let round = 0; round < 12; round++) {
    const { printId, picture } = await bring(`raced-${round}.png`);
    const { head } = await getPrint(sql(), printId);
    await changePicture(sql(), picture.id, { deleted: true });
    const ask = routes({
      GET: async () => Response.json(await requestExport(sql(), printId, head, jpeg)),
      POST: async () => Response.json(await addPrint(sql(), picture.id, defaultPlan())),
      PUT: async () => Response.json(await copyPrint(sql(), printId)),
      DELETE: async () => Response.json(await deleteForGood(sql(), { picture: picture.id }).then(() => 1)),
    });
    const methods = [...Array(4).fill("GET"), "DELETE", ...Array(4).fill("GET"), "POST", "PUT", "GET", "GET"] as (
      "GET" | "DELETE" | "POST" | "PUT"
    )[];
    const answers = await Promise.all(
      methods.map((method) => ask[method](new Request("http://localhost/", { method }), { params: Promise.resolve({}) })),
    );
    for (const { status } of answers) statuses.add(status);
  }
  expect([...statuses].filter((status) => ![200, 404, 409].includes(status))).toEqual([]);
  expect(statuses).toContain(200);
  expect(statuses).toContain(404);
});
