import { randomUUID } from "node:crypto";
import fc from "fast-check";
import { beforeAll, describe, expect, test } from "vitest";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { packPath } from "@/core/brush/stroke";
import { openGate } from "@/core/gate/gate";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { packLevels } from "@/core/region/pictureLevels";
import { migrate } from "@/server/migrate";
import { importPicture } from "@/server/pictures/pictures";
import { addPrint, appendRevision, changePrint, getPrint, getRevision, listRevisions, moveHead } from "@/server/prints/prints";
import { colourful, rgb8, to8 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";
import { allCards } from "./cards";

const { sql } = ownDatabase();
let pictureId = "";
let printId = "";

beforeAll(async () => {
  const png = await rgb8(to8(colourful(60, 40)), 60, 40)
    .png()
    .toBuffer();
  const imported = await importPicture(sql(), "hut.png", pieces(png));
  pictureId = imported.picture.id;
  printId = imported.printId;
});

function planNamed(name: string): Plan {
  const plan = defaultPlan();
  plan.passes[0]!.name = name;
  return plan;
}

const step = (base: string, name: string) => ({ id: randomUUID(), base, label: name, plan: planNamed(name) });

test("migrating again applies nothing", async () => expect(await migrate(sql(), "db")).toEqual([]));

test("a new print stands at its first step, with the default plan", async () => {
  const print = await getPrint(sql(), printId);
  expect(await getRevision(sql(), printId, print.head)).toMatchObject({ parent: null, plan: defaultPlan() });
});

test("an edit is a step on from its base; sent again, it does no more", async () => {
  const { head } = await getPrint(sql(), printId);
  const edit = step(head, "once");
  await appendRevision(sql(), printId, edit);
  await appendRevision(sql(), printId, edit);
  const revisions = await listRevisions(sql(), printId);
  expect(revisions.filter(({ id }) => id === edit.id)).toHaveLength(1);
  expect(await getPrint(sql(), printId)).toMatchObject({ head: edit.id });
  expect((await getRevision(sql(), printId, edit.id)).plan.passes[0]!.name).toBe("once");
});

test("of two edits on the same base the second is refused, and nothing of it stays", async () => {
  const { head } = await getPrint(sql(), printId);
  const [mine, theirs] = [step(head, "mine"), step(head, "theirs")];
  const outcomes = await Promise.allSettled([appendRevision(sql(), printId, mine), appendRevision(sql(), printId, theirs)]);
  const refused = outcomes.filter((outcome) => outcome.status === "rejected");
  expect(refused).toHaveLength(1);
  expect(refused[0]!.reason).toMatchObject({ code: "stale_base", status: 409 });
  expect((await listRevisions(sql(), printId)).filter(({ label }) => label === "mine" || label === "theirs")).toHaveLength(1);
});

test("undo and redo move the print along its steps and remove none", async () => {
  const { head } = await getPrint(sql(), printId);
  const first = step(head, "first");
  await appendRevision(sql(), printId, first);
  const branch = step(head, "another way");
  await moveHead(sql(), printId, { base: first.id, to: head });
  await appendRevision(sql(), printId, branch);
  const labels = (await listRevisions(sql(), printId)).map(({ label }) => label);
  expect(labels).toEqual(expect.arrayContaining(["first", "another way"]));
  await expect(moveHead(sql(), printId, { base: head, to: first.id })).rejects.toMatchObject({ code: "stale_base" });
  await moveHead(sql(), printId, { base: branch.id, to: first.id });
  expect((await getPrint(sql(), printId)).head).toBe(first.id);
});

test("any sequence of edits, undos and jumps ends where the same sequence in memory does", async () => {
  const move = fc.oneof(
    fc.record({ kind: fc.constant("edit" as const) }),
    fc.record({ kind: fc.constant("jump" as const), pick: fc.nat(30) }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(move, { maxLength: 12 }), async (moves) => {
      const print = await addPrint(sql(), pictureId, defaultPlan());
      const steps = [{ id: print.head, parent: null as string | null }];
      let head = print.head;
      for (const each of moves) {
        if (each.kind === "edit") {
          const edit = step(head, `edit ${steps.length}`);
          await appendRevision(sql(), print.id, edit);
          steps.push({ id: edit.id, parent: head });
          head = edit.id;
        } else {
          const to = steps[each.pick % steps.length]!.id;
          await moveHead(sql(), print.id, { base: head, to });
          head = to;
        }
      }
      expect((await getPrint(sql(), print.id)).head).toBe(head);
      expect((await listRevisions(sql(), print.id)).map(({ id, parent }) => ({ id, parent }))).toEqual(steps);
    }),
    { seed: 91, numRuns: 15 },
  );
});

describe("deleting", () => {
  test("takes a print off the list and can be undone", async () => {
    const print = await addPrint(sql(), pictureId, defaultPlan(), "Gone tomorrow");
    await changePrint(sql(), print.id, { deleted: true });
    expect((await allCards(sql())).flatMap(({ prints }) => prints).map(({ id }) => id)).not.toContain(print.id);
    await changePrint(sql(), print.id, { deleted: false });
    expect((await allCards(sql())).flatMap(({ prints }) => prints).map(({ id }) => id)).toContain(print.id);
  });
});

describe("pins", () => {
  test("stay with their print and are replaced as a whole", async () => {
    const print = await addPrint(sql(), pictureId, defaultPlan());
    expect(print.pins).toEqual([]);
    await changePrint(sql(), print.id, {
      pins: [
        { x: 0.25, y: 0.5 },
        { x: 1, y: 0 },
      ],
    });
    await changePrint(sql(), print.id, { name: "Pinned" });
    expect(await getPrint(sql(), print.id)).toMatchObject({
      name: "Pinned",
      pins: [
        { x: 0.25, y: 0.5 },
        { x: 1, y: 0 },
      ],
    });
    await changePrint(sql(), print.id, { pins: [] });
    expect((await getPrint(sql(), print.id)).pins).toEqual([]);
  });
});

test("what is not there is said to be not there", async () => {
  const nowhere = randomUUID();
  await expect(getPrint(sql(), nowhere)).rejects.toMatchObject({ code: "not_found" });
  await expect(appendRevision(sql(), nowhere, step(nowhere, "x"))).rejects.toMatchObject({ code: "not_found" });
  await expect(addPrint(sql(), nowhere, defaultPlan())).rejects.toMatchObject({ code: "not_found" });
  const { head } = await getPrint(sql(), printId);
  await expect(moveHead(sql(), printId, { base: head, to: nowhere })).rejects.toMatchObject({ code: "not_found" });
});

describe("plans of many strokes", () => {
  const stroke = (i: number) => ({
    radius: 0.02,
    hardness: 0.3,
    flow: 0.5,
    pressure: "none" as const,
    erase: i % 3 === 0,
    path: packPath([{ x: (i % 90) / 100, y: 0.3, pressure: 1 }]),
  });
  const planOf = (count: number): Plan => {
    const plan = defaultPlan();
    const strokes = Array.from({ length: count }, (_, i) => stroke(i));
    const levels = packLevels(Uint8Array.from({ length: 90 * 60 }, (_, i) => i % 251));
    plan.regions = [
      {
        ...emptyRegion("region", "Region"),
        shapes: [
          { id: "area", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes },
          { id: "file", combine: "subtract", kind: "picture", width: 90, height: 60, levels },
        ],
      },
    ];
    plan.passes[0]!.region = "region";
    plan.passes[0]!.gate = { ...openGate(), repair: strokes.slice(0, 120) };
    return plan;
  };
  test("come back whole, and a step more costs what it adds", async () => {
    const print = await addPrint(sql(), pictureId, defaultPlan());
    const size = async (id: string) => {
      const [row] = await sql()<{ bytes: number }[]>`select length(plan::text) as bytes from revision where id = ${id}`;
      return row!.bytes;
    };
    const pieces = async () => (await sql()<{ count: number }[]>`select count(*)::int as count from plan_piece`)[0]!.count;
    let base = print.head;
    for (const count of [2030, 2031]) {
      const edit = { id: randomUUID(), base, label: `${count} strokes`, plan: planOf(count) };
      await appendRevision(sql(), print.id, edit);
      expect((await getRevision(sql(), print.id, edit.id)).plan).toEqual(edit.plan);
      expect(await size(edit.id)).toBeLessThan(20_000); // the plan itself is of more than 250,000 characters
      base = edit.id;
    }
    const kept = await pieces();
    await appendRevision(sql(), print.id, { id: randomUUID(), base, label: "one more", plan: planOf(2032) });
    expect(await pieces()).toBe(kept);
  });
});
