import { z } from "zod";
import { SavedPlacement } from "@/contracts/api";
import type { Sql } from "../db";
import { AppError } from "../errors";

/** Most placements kept. */
const MOST_PLACEMENTS = 200;

/** Saved placements not deleted, in the order they were made. */
export async function listPlacements(sql: Sql): Promise<SavedPlacement[]> {
  return z.array(SavedPlacement).parse(await sql`select id, name, strands from placement where deleted_at is null order by created_at`);
}

/** Saves a placement; sent again with the same id, it does nothing more. Errors: AppError `too_many`. */
export async function insertPlacement(sql: Sql, { id, name, strands }: SavedPlacement): Promise<SavedPlacement> {
  const [count] = await sql<{ kept: number }[]>`select count(*)::int as kept from placement where deleted_at is null`;
  if (count!.kept >= MOST_PLACEMENTS) throw new AppError("too_many", `${MOST_PLACEMENTS} placements are kept already; delete one first`);
  await sql`insert into placement (id, name, strands) values (${id}, ${name}, ${sql.json(strands)}) on conflict do nothing`;
  const [row] = await sql`select id, name, strands from placement where id = ${id}`;
  return SavedPlacement.parse(row);
}

/** Deletes or brings back. Errors: AppError `not_found`. */
export async function changePlacement(sql: Sql, id: string, { deleted }: { deleted: boolean }): Promise<void> {
  const changed = await sql`update placement set deleted_at = case when ${deleted} then now() end where id = ${id}`;
  if (changed.count === 0) throw new AppError("not_found", "this placement is not here");
}
