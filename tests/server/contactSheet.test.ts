import { randomUUID } from "node:crypto";
import { beforeAll, expect, test } from "vitest";
import { GET } from "@/app/api/pictures/route";
import { CARDS_ON_A_PAGE, SheetPage, type SheetRequest } from "@/contracts/contactSheet";
import { storeBlob } from "@/server/blobs/blobs";
import { changePicture } from "@/server/pictures/pictures";
import { addPrint, changePrint } from "@/server/prints/prints";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { allCards } from "./cards";
import { ownDatabase, pieces } from "./ownDatabase";

const { sql } = ownDatabase();
const COUNT = 130;
const facts = { format: "JPEG", bits: 8, profile: "sRGB", capture: {}, notes: [] };

/** Rows alone: the sheet reads nothing else. */
beforeAll(async () => {
  const { id: blob } = await storeBlob(sql(), pieces(Buffer.from("a picture's bytes")), 1e6);
  const rows = Array.from({ length: COUNT }, (_, i) => ({
    id: randomUUID(),
    name: `Dome ${i} ${["élan", "Ängström", "дом"][i % 3]}`,
    blob_id: blob,
    width: 60,
    height: 40,
    facts: sql().json(facts),
    rating: i % 6,
    created_at: new Date(1_700_000_000_000 + 1000 * (i % 2)), // sixty-five at a time, so that pages end among them
  }));
  await sql()`insert into picture ${sql()(rows as never[])}`;
  for (const { id } of rows.slice(0, 3)) await addPrint(sql(), id, defaultPlan());
});

const ask = async (asked: Partial<Record<keyof SheetRequest, string>>) => {
  const query = new URLSearchParams(asked as Record<string, string>).toString();
  const response = await GET(new Request(`http://here/api/pictures?${query}`), { params: Promise.resolve({}) });
  return { status: response.status, body: (await response.json()) as unknown };
};
const pageOf = async (asked: Parameters<typeof ask>[0]) => SheetPage.parse((await ask(asked)).body);
const numbers = (page: SheetPage) => page.cards.map(({ name }) => Number(name.split(" ")[1]));

test("pages follow one another without a card left out or twice, in every order", async () => {
  for (const order of ["newest", "name", "rating"]) {
    const pages = [];
    for (let page = 0; page < 3; page++) pages.push(await pageOf({ order, page: String(page) }));
    expect(pages.map(({ cards }) => cards.length)).toEqual([CARDS_ON_A_PAGE, CARDS_ON_A_PAGE, COUNT - 2 * CARDS_ON_A_PAGE]);
    const cards = pages.flatMap(({ cards: on }) => on);
    expect(new Set(cards.map(({ id }) => id)).size).toBe(COUNT);
    expect(pages.every(({ found, all }) => found === COUNT && all === COUNT)).toBe(true);
    if (order === "newest")
      for (let i = 1; i < COUNT; i++) {
        const [before, after] = [cards[i - 1]!, cards[i]!];
        expect(+before.createdAt === +after.createdAt ? before.id < after.id : before.createdAt > after.createdAt).toBe(true);
      }
    if (order === "rating") for (let i = 1; i < COUNT; i++) expect(cards[i]!.rating).toBeLessThanOrEqual(cards[i - 1]!.rating);
  }
  expect((await pageOf({ page: "3" })).cards).toEqual([]);
});

test("by name 2 stands before 10", async () => {
  expect(numbers(await pageOf({ order: "name" })).slice(0, 12)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]);
});

test("a search finds names that hold all its words, whatever their case, in any script; its signs are no pattern", async () => {
  expect(numbers(await pageOf({ search: "dome 12", order: "name" }))).toEqual([12, 112, 120, 121, 122, 123, 124, 125, 126, 127, 128, 129]);
  expect((await pageOf({ search: "ÉLAN" })).found).toBe(44);
  expect((await pageOf({ search: "ДОМ  dome" })).found).toBe(43);
  expect((await pageOf({ search: "  " })).found).toBe(COUNT);
  for (const search of ["%", "_", "'", "\\"]) expect(await pageOf({ search })).toMatchObject({ found: 0, all: COUNT, cards: [] });
});

test("prints stand with their picture, oldest first; what is deleted is not shown or counted, until it is brought back", async () => {
  const [card] = (await pageOf({ order: "name" })).cards;
  const second = await addPrint(sql(), card!.id, defaultPlan(), "Second");
  expect((await pageOf({ order: "name" })).cards[0]!.prints).toEqual([
    card!.prints[0],
    { id: second.id, name: "Second", head: second.head },
  ]);
  await changePrint(sql(), second.id, { deleted: true });
  await changePicture(sql(), card!.id, { deleted: true });
  expect(await pageOf({})).toMatchObject({ found: COUNT - 1, all: COUNT - 1 });
  await changePicture(sql(), card!.id, { deleted: false });
  expect((await allCards(sql())).find(({ id }) => id === card!.id)!.prints).toEqual(card!.prints);
});

test("what is no request is refused with its field named", async () => {
  for (const [field, value] of [
    ["page", "-1"],
    ["page", "two"],
    ["order", "size"],
    ["search", "a\0b"],
  ] as const) {
    const { status, body } = await ask({ [field]: value });
    expect([status, (body as { title: string }).title]).toEqual([400, expect.stringContaining(field)]);
  }
});
