import { z } from "zod";
import { SavedMix, SavedPlacement } from "@/contracts/api";
import type { Sql } from "../db";
import { AppError } from "../errors";

// What a photographer keeps to start from again, on any picture.

/** Most that are kept of each kind. */
const MOST_SAVED = 200;

interface Saved {
  id: string;
  name: string;
}

/** A kind of what is kept: its table, and the column that holds what it is. */
interface SavedKind<T extends Saved> {
  word: string;
  words: string;
  table: string;
  column: string;
  /** What is kept in that column. */
  what(made: T): unknown;
  schema: z.ZodType<T>;
}

export const PLACEMENTS: SavedKind<SavedPlacement> = {
  word: "placement",
  words: "placements",
  table: "placement",
  column: "strands",
  what: ({ strands }) => strands,
  schema: SavedPlacement,
};
export const MIXES: SavedKind<SavedMix> = {
  word: "mix",
  words: "mixes",
  table: "saved_mix",
  column: "mix",
  what: ({ mix }) => mix,
  schema: SavedMix,
};

/** Those not deleted, in the order they were made. */
export async function listSaved<T extends Saved>(sql: Sql, { table, column, schema }: SavedKind<T>): Promise<T[]> {
  const rows = await sql`select id, name, ${sql(column)} from ${sql(table)} where deleted_at is null order by created_at`;
  return z.array(schema).parse([...rows]);
}

/** Saves one; sent again with the same id, it does nothing more. Errors: AppError `too_many`. */
export async function insertSaved<T extends Saved>(sql: Sql, { words, table, column, what, schema }: SavedKind<T>, made: T): Promise<T> {
  const [count] = await sql<{ kept: number }[]>`select count(*)::int as kept from ${sql(table)} where deleted_at is null`;
  if (count!.kept >= MOST_SAVED) throw new AppError("too_many", `${MOST_SAVED} ${words} are kept already; delete one first`);
  await sql`insert into ${sql(table)} (id, name, ${sql(column)}) values (${made.id}, ${made.name}, ${sql.json(what(made) as never)}) on conflict do nothing`;
  const [row] = await sql`select id, name, ${sql(column)} from ${sql(table)} where id = ${made.id}`;
  return schema.parse(row);
}

/** Deletes or brings back. Errors: AppError `not_found`. */
export async function changeSaved<T extends Saved>(
  sql: Sql,
  { word, table }: SavedKind<T>,
  id: string,
  { deleted }: { deleted: boolean },
): Promise<void> {
  const changed = await sql`update ${sql(table)} set deleted_at = case when ${deleted} then now() end where id = ${id}`;
  if (changed.count === 0) throw new AppError("not_found", `this ${word} is not here`);
}
