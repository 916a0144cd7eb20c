import type postgres from "postgres";
import { z } from "zod";
import { Binned, MOST_BINNED } from "@/contracts/bin";
import type { Sql } from "../db";
import { AppError } from "../errors";

type Tx = postgres.TransactionSql;

/** What lies in the bin, the newest first. */
export async function readBin(sql: Sql): Promise<Binned[]> {
  const rows = await sql`
    select kind, id, name, picture_name as "pictureName", prints, shown, deleted_at as "deletedAt" from (
      select 'picture' as kind, pic.id, pic.name, pic.name as picture_name, pic.deleted_at,
        (select count(*)::int from print where picture_id = pic.id and deleted_at is null) as prints,
        (select json_build_object('print', id, 'head', head) from print where picture_id = pic.id and deleted_at is null order by created_at, id limit 1) as shown
      from picture pic where pic.deleted_at is not null
      union all
      select 'print', p.id, p.name, pic.name, p.deleted_at, 1, json_build_object('print', p.id, 'head', p.head)
      from print p join picture pic on pic.id = p.picture_id where p.deleted_at is not null and pic.deleted_at is null
    ) binned
    order by deleted_at desc, id limit ${MOST_BINNED}
  `;
  return z.array(Binned).parse(rows);
}

/** What of the bin is meant: all of it, what has lain there for so many days, one picture with its prints, one print. */
export type OfBin = { days?: number; picture?: string; print?: string };

/**
 * Deletes for good what is meant of the bin. What its files take is given back when the server next sweeps. Returns how many were deleted.
 */
export async function clearBin(tx: Tx, { days = 0, picture, print }: OfBin): Promise<{ prints: number; pictures: number }> {
  const isMeant = (deletedAt: postgres.Fragment) => tx`${deletedAt} <= now() - make_interval(days => ${days})`;
  const prints = await tx`
    delete from print p using picture pic
    where pic.id = p.picture_id and (${isMeant(tx`p.deleted_at`)} or ${isMeant(tx`pic.deleted_at`)})
      and ${print ? tx`p.id = ${print}` : picture ? tx`pic.id = ${picture}` : tx`true`}
  `;
  if (print) return { prints: prints.count, pictures: 0 };
  const pictures = await tx`
    delete from picture where ${isMeant(tx`deleted_at`)} and not exists (select from print where picture_id = picture.id)
      and ${picture ? tx`id = ${picture}` : tx`true`}
  `;
  return { prints: prints.count, pictures: pictures.count };
}

/** Deletes one thing of the bin for good. Errors: AppError `not_in_bin` where it is not there. */
export async function deleteForGood(sql: Sql, meant: { picture: string } | { print: string }): Promise<void> {
  const { prints, pictures } = await sql.begin((tx) => clearBin(tx, meant));
  if (("picture" in meant ? pictures : prints) === 0)
    throw new AppError("not_in_bin", "this is not in the bin; only what lies there can be deleted for good");
}
