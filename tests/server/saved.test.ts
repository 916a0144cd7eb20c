import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import { changeSaved, insertSaved, listSaved, MIXES, PLACEMENTS } from "@/server/saved/saved";
import { ownDatabase } from "./ownDatabase";

const { sql } = ownDatabase();
const saved = (name: string) => ({
  id: randomUUID(),
  name,
  strands: [
    { from: 0, to: 0.5 },
    { from: 10, to: 9.75 },
  ],
});

test("a placement is kept once, however often it is sent", async () => {
  const mine = saved("Mine");
  expect(await insertSaved(sql(), PLACEMENTS, mine)).toEqual(mine);
  expect(await insertSaved(sql(), PLACEMENTS, { ...mine, name: "Sent again" })).toEqual(mine);
  expect(await listSaved(sql(), PLACEMENTS)).toEqual([mine]);
});

test("a deleted one is off the list and can be brought back to its place", async () => {
  const [first] = await listSaved(sql(), PLACEMENTS);
  const second = await insertSaved(sql(), PLACEMENTS, saved("Second"));
  await changeSaved(sql(), PLACEMENTS, first!.id, { deleted: true });
  expect(await listSaved(sql(), PLACEMENTS)).toEqual([second]);
  await changeSaved(sql(), PLACEMENTS, first!.id, { deleted: false });
  expect(await listSaved(sql(), PLACEMENTS)).toEqual([first, second]);
  await expect(changeSaved(sql(), PLACEMENTS, randomUUID(), { deleted: true })).rejects.toMatchObject({ code: "not_found" });
});

test("there is an end to how many are kept, and it says what to do", async () => {
  const kept = (await listSaved(sql(), PLACEMENTS)).length;
  for (let i = kept; i < 200; i++) await insertSaved(sql(), PLACEMENTS, saved(`Placement ${i}`));
  await expect(insertSaved(sql(), PLACEMENTS, saved("One too many"))).rejects.toMatchObject({ code: "too_many" });
  expect(await listSaved(sql(), PLACEMENTS)).toHaveLength(200);
});

test("mixes are kept in the same way, apart from placements", async () => {
  const mix = { weights: { red: 0.9, green: 0.4, blue: -0.3 }, sumHeld: true, huesOn: true, hueKnots: [{ hueDeg: 30, stops: 0.5 }] };
  const mine = await insertSaved(sql(), MIXES, { id: randomUUID(), name: "Deep sky", mix });
  expect(await listSaved(sql(), MIXES)).toEqual([mine]);
  expect(mine.mix).toEqual(mix);
  await changeSaved(sql(), MIXES, mine.id, { deleted: true });
  expect(await listSaved(sql(), MIXES)).toEqual([]);
  expect((await listSaved(sql(), PLACEMENTS)).length).toBeGreaterThan(0);
});
