import { SheetRequest, type SheetCard } from "@/contracts/contactSheet";
import type { Sql } from "@/server/db";
import { readSheet } from "@/server/pictures/contactSheet";

/** All cards of the contact sheet, newest first. */
export async function allCards(sql: Sql): Promise<SheetCard[]> {
  const cards: SheetCard[] = [];
  for (let page = 0; ; page++) {
    const read = await readSheet(sql, SheetRequest.parse({ page }));
    cards.push(...read.cards);
    if (cards.length >= read.found || read.cards.length === 0) return cards;
  }
}
