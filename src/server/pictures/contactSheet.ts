import { CARDS_ON_A_PAGE, type SheetOrder, type SheetPage, type SheetPrint, type SheetRequest } from "@/contracts/contactSheet";
import type { Sql } from "../db";
import { readablePicture, selectPictures } from "./pictures";

/** One page of the pictures not deleted, with their prints. */
export async function readSheet(sql: Sql, { search, order, page }: SheetRequest): Promise<SheetPage> {
  const words = search.split(/\s+/).filter(Boolean);
  const isFound = sql`p.deleted_at is null and (
    select coalesce(bool_and(strpos(lower(p.name collate by_name), lower(word collate by_name)) > 0), true) from unnest(${words}::text[]) as word
  )`;
  const [rows, [counts]] = await Promise.all([
    sql`
      ${selectPictures(sql)} where ${isFound} order by ${ordered(sql, order)}
      limit ${CARDS_ON_A_PAGE} offset ${page * CARDS_ON_A_PAGE}
    `,
    sql<{ found: number; all: number }[]>`
      select count(*) filter (where ${isFound})::int as found, count(*)::int as all from picture p where p.deleted_at is null
    `,
  ]);
  const pictures = rows.map(readablePicture);
  const prints = await sql<(SheetPrint & { pictureId: string })[]>`
    select id, picture_id as "pictureId", name, head from print
    where deleted_at is null and picture_id = any(${pictures.map(({ id }) => id)}::uuid[]) order by created_at, id
  `;
  const printsOf = new Map(pictures.map(({ id }) => [id, [] as SheetPrint[]]));
  for (const { pictureId, ...print } of prints) printsOf.get(pictureId)!.push(print);
  return { ...counts!, cards: pictures.map((picture) => ({ ...picture, prints: printsOf.get(picture.id)! })) };
}

/** Each order ends in the id, so that no card stands on two pages. */
function ordered(sql: Sql, order: SheetOrder) {
  switch (order) {
    case "newest":
      return sql`p.created_at desc, p.id`;
    case "name":
      return sql`p.name collate by_name, p.id`;
    case "rating":
      return sql`p.rating desc, p.name collate by_name, p.id`;
  }
}
