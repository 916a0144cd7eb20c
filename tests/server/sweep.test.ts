import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, statSync, utimesSync, writeFileSync } from "node:fs";
import { readdir } from "node:fs/promises";
import { join } from "node:path";
import { expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { ExposureMove } from "@/core/passes/exposure/move";
import type { Plan } from "@/core/plan/plan";
import { storeBlob } from "@/server/blobs/blobs";
import { cancelExport, requestExport } from "@/server/exports/exports";
import { changePicture, importPicture } from "@/server/pictures/pictures";
import { addPrint, changePrint, getPrint, getRevision } from "@/server/prints/prints";
import { changeSaved, insertSaved, listSaved, MIXES, PLACEMENTS } from "@/server/saved/saved";
import { leastUsed, sweep, type Entry } from "@/server/sweep";
import { ExportSettings } from "@/contracts/exportSettings";
import { colourful, rgb16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";
import { allCards } from "./cards";

const { sql, folder } = ownDatabase();
const bring = async () => importPicture(sql(), "a.png", pieces(await rgb16(colourful(30, 20), 30, 20).png().toBuffer()));
const count = async (table: string) => (await sql().unsafe<[{ n: number }]>(`select count(*)::int as n from ${table}`))[0]!.n;
const age = (table: string, id: string, column: string, days: number) =>
  sql().unsafe(`update ${table} set ${column} = now() - interval '${days} days' where id = '${id}'`);

/** A plan with so many strokes that they are kept beside it. */
function painted(ceiling: number): Plan {
  const plan = defaultPlan();
  const stroke = {
    radius: 0.1,
    hardness: 0.5,
    flow: 0.5,
    pressure: "none",
    erase: false,
    burns: true,
    ceiling,
    path: packPath([{ x: 0.5, y: 0.5, pressure: 1 }]),
  } as const;
  const pass = restingPass("exposure", "painted", "Painted");
  plan.passes.push({ ...pass, move: { ...(pass.move as ExposureMove), strokes: Array.from({ length: 150 }, () => stroke) } });
  return plan;
}

test("what was deleted a month ago goes with all it had; what was deleted yesterday can be brought back", async () => {
  const [old, recent, kept] = [await bring(), await bring(), await bring()];
  const print = await addPrint(sql(), kept.picture.id, painted(1));
  const gone = await addPrint(sql(), kept.picture.id, painted(0.4));
  const { id: exported } = await requestExport(sql(), gone.id, gone.head, ExportSettings.parse({ format: "jpeg" }));
  await changePicture(sql(), old.picture.id, { deleted: true });
  await changePicture(sql(), recent.picture.id, { deleted: true });
  await changePrint(sql(), gone.id, { deleted: true });
  await age("picture", old.picture.id, "deleted_at", 31);
  await age("picture", recent.picture.id, "deleted_at", 29);
  await age("print", gone.id, "deleted_at", 31);
  await sql()`update plan_piece set created_at = now() - interval '3 days'`;
  await sql()`update blob set created_at = now() - interval '3 days'`;
  expect(await count("plan_piece")).toBe(2);
  expect(await sweep(sql())).toMatchObject({ pictures: 1, prints: 2, blobs: 1, pieces: 1 });
  expect(await sql()`select id from job where id = ${exported}`).toEqual([]);
  await changePicture(sql(), recent.picture.id, { deleted: false });
  expect((await allCards(sql())).map(({ id }) => id).toSorted()).toEqual([recent.picture.id, kept.picture.id].toSorted());
  // The strokes of the print that stays are there whole.
  expect((await getRevision(sql(), print.id, print.head)).plan).toEqual(painted(1));
  expect(await sweep(sql())).toEqual({ pictures: 0, prints: 0, exports: 0, blobs: 0, pieces: 0, saved: 0, files: 0 });
});

test("placements and mixes deleted a month ago go, those of yesterday can be brought back", async () => {
  const strands = [
    { from: 0, to: 0 },
    { from: 10, to: 10 },
  ];
  const of = {
    placement: { kind: PLACEMENTS, what: { strands } },
    saved_mix: {
      kind: MIXES,
      what: { mix: { weights: { red: 0.9, green: 0.4, blue: -0.3 }, sumHeld: true, huesOn: false, hueKnots: [] } },
    },
  };
  for (const [table, { kind, what }] of Object.entries(of)) {
    const ids = ["old", "recent", "kept"].map(() => randomUUID());
    for (const id of ids) await insertSaved(sql(), kind as typeof PLACEMENTS, { id, name: "Mine", ...what } as never);
    for (const id of ids.slice(0, 2)) await changeSaved(sql(), kind as typeof PLACEMENTS, id, { deleted: true });
    await age(table, ids[0]!, "deleted_at", 31);
    await age(table, ids[1]!, "deleted_at", 29);
    expect(await sweep(sql())).toMatchObject({ saved: 1 });
    await changeSaved(sql(), kind as typeof PLACEMENTS, ids[1]!, { deleted: false });
    expect((await listSaved(sql(), kind as typeof PLACEMENTS)).map(({ id }) => id)).toEqual(ids.slice(1));
  }
});

test("bytes that belong to nothing go after a day, exports after a week, those that wait or run never", async () => {
  const { printId } = await bring();
  const { head } = await getPrint(sql(), printId);
  const orphan = await storeBlob(sql(), pieces(new Uint8Array(100)), 1000);
  const arriving = await storeBlob(sql(), pieces(new Uint8Array(100)), 1000);
  await age("blob", orphan.id, "created_at", 2);
  const [done, waiting] = [
    await requestExport(sql(), printId, head, ExportSettings.parse({ format: "jpeg" })),
    await requestExport(sql(), printId, head, ExportSettings.parse({ format: "jpeg" })),
  ];
  await cancelExport(sql(), done.id);
  await age("job", done.id, "finished_at", 8);
  await age("job", waiting.id, "created_at", 80);
  expect(await sweep(sql())).toMatchObject({ exports: 1, blobs: 1 });
  expect((await sql()`select id from blob where id in ${sql()([orphan.id, arriving.id])}`).map(({ id }) => id)).toEqual([arriving.id]);
  expect((await sql()`select id from export where print_id = ${printId}`).map(({ id }) => id)).toEqual([waiting.id]);
});

test("stray files go, those of pictures that are there stay", async () => {
  const { picture } = await bring();
  const cache = join(folder, "cache");
  const long = new Date(Date.now() - 3 * 86_400_000);
  const stray = [
    "pictures/11111111-1111-4111-8111-111111111111/full.v",
    "pictures/half.123.abc/full.v",
    "arriving/upload",
    "thumbnails/none.jpg",
  ];
  for (const name of [...stray, "arriving/now"]) {
    mkdirSync(join(cache, name, ".."), { recursive: true });
    writeFileSync(join(cache, name), "x");
  }
  for (const name of stray) {
    utimesSync(join(cache, name), long, long);
    if (name.startsWith("pictures")) utimesSync(join(cache, name, ".."), long, long);
  }
  expect((await sweep(sql()))!.files).toBe(4);
  for (const name of stray) expect(existsSync(join(cache, name))).toBe(false);
  expect(existsSync(join(cache, "arriving/now"))).toBe(true);
  expect(statSync(join(cache, "arriving")).mode & 0o777).toBe(0o700);
  const [{ blob }] = await sql()<[{ blob: string }]>`select blob_id as blob from picture where id = ${picture.id}`;
  expect(await readdir(join(cache, "pictures"))).toContain(blob);
});

test("of the pictures at hand the least used go first, until the rest fit; none that is in use", () => {
  const hours = (h: number) => Date.now() - h * 3_600_000;
  const entry = (name: string, bytes: number, usedMs: number): Entry => ({ name, path: name, bytes, usedMs });
  const entries = [
    entry("new", 50, hours(2)),
    entry("old", 30, hours(90)),
    entry("in use", 400, hours(0.5)),
    entry("older", 20, hours(200)),
  ];
  expect(leastUsed(entries, 500).map(({ name }) => name)).toEqual([]);
  expect(leastUsed(entries, 490).map(({ name }) => name)).toEqual(["older"]);
  expect(leastUsed(entries, 460).map(({ name }) => name)).toEqual(["older", "old"]);
  expect(leastUsed(entries, 0).map(({ name }) => name)).toEqual(["older", "old", "new"]);
});

test("two sweeps at once are one, and steps saved meanwhile keep their pieces", async () => {
  const { picture } = await bring();
  const results = await Promise.all([
    sweep(sql()),
    sweep(sql()),
    ...Array.from({ length: 6 }, (_, i) => addPrint(sql(), picture.id, painted(0.5 + 0.3 * i))),
  ]);
  await sql()`update plan_piece set created_at = now() - interval '3 days'`;
  await sweep(sql());
  for (const [i, print] of (results.slice(2) as { id: string; head: string }[]).entries())
    expect((await getRevision(sql(), print.id, print.head)).plan).toEqual(painted(0.5 + 0.3 * i));
});
