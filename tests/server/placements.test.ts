import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import { changePlacement, insertPlacement, listPlacements } from "@/server/placements/placements";
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
  expect(await insertPlacement(sql(), mine)).toEqual(mine);
  expect(await insertPlacement(sql(), { ...mine, name: "Sent again" })).toEqual(mine);
  expect(await listPlacements(sql())).toEqual([mine]);
});

test("a deleted one is off the list and can be brought back to its place", async () => {
  const [first] = await listPlacements(sql());
  const second = await insertPlacement(sql(), saved("Second"));
  await changePlacement(sql(), first!.id, { deleted: true });
  expect(await listPlacements(sql())).toEqual([second]);
  await changePlacement(sql(), first!.id, { deleted: false });
  expect(await listPlacements(sql())).toEqual([first, second]);
  await expect(changePlacement(sql(), randomUUID(), { deleted: true })).rejects.toMatchObject({ code: "not_found" });
});

test("there is an end to how many are kept, and it says what to do", async () => {
  const kept = (await listPlacements(sql())).length;
  for (let i = kept; i < 200; i++) await insertPlacement(sql(), saved(`Placement ${i}`));
  await expect(insertPlacement(sql(), saved("One too many"))).rejects.toMatchObject({ code: "too_many" });
  expect(await listPlacements(sql())).toHaveLength(200);
});
