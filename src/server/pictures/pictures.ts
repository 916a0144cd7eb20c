import { randomUUID } from "node:crypto";
import { MOST_NAME, PictureSummary, type PictureChange } from "@/contracts/api";
import { defaultPlan } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { MOST_BYTES } from "@/engine/node/decodePicture";
import { HEAD_BYTES, needPicture } from "@/engine/node/sniffPicture";
import { cleanText, cutText } from "@/core/text/text";
import { storeBlob } from "../blobs/blobs";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { insertPrint } from "../prints/prints";
import { forgetPrepared, preparedFolder } from "./preparedFolder";

/**
 * Takes a picture in: stores its bytes, decodes them to see that they are sound, and gives it a
 * first print. A file that is refused leaves nothing behind. Its name is made from the file's, and its plan the one to begin with, unless
 * others are given.
 *
 * Errors  PictureError with the reason; AppError `too_large`.
 */
export async function importPicture(
  sql: Sql,
  fileName: string,
  bytes: AsyncIterable<Uint8Array>,
  { name = pictureName(fileName), plan }: { name?: string; plan?: Plan } = {},
): Promise<{ picture: PictureSummary; printId: string }> {
  const blob = await storeBlob(sql, await pictureOnly(bytes), MOST_BYTES);
  try {
    const { width, height, facts } = await preparedFolder(sql, blob.id);
    const id = randomUUID();
    const printId = await sql.begin(async (tx) => {
      await tx`
        insert into picture (id, name, blob_id, width, height, facts)
        values (${id}, ${name}, ${blob.id}, ${width}, ${height}, ${sql.json({ ...facts })})
      `;
      return insertPrint(tx, id, "Print 1", plan ?? defaultPlan(facts.format));
    });
    return { picture: await getPicture(sql, id), printId };
  } catch (error) {
    await sql`delete from blob where id = ${blob.id}`;
    await forgetPrepared(blob.id);
    throw error;
  }
}

/** The same bytes, once their beginning is seen to be that of a picture: nothing else is stored, however much there is of it. */
async function pictureOnly(bytes: AsyncIterable<Uint8Array>): Promise<AsyncIterable<Uint8Array>> {
  const coming = bytes[Symbol.asyncIterator]();
  let head: Uint8Array = new Uint8Array();
  while (head.length < HEAD_BYTES) {
    const { done, value } = await coming.next();
    if (done) break;
    head = Buffer.concat([head, value]);
  }
  try {
    needPicture(head);
  } catch (error) {
    await coming.return?.();
    throw error;
  }
  return (async function* () {
    yield head;
    yield* { [Symbol.asyncIterator]: () => coming };
  })();
}

/** "dunes-below-the-station.jpg" → "Dunes below the station". */
export function pictureName(fileName: string): string {
  const stem = cleanText(fileName)
    .replace(/^.*[\\/]/, "")
    .replace(/\.[a-z0-9]{1,5}$/i, "")
    .replace(/[-_]+/g, " ")
    .trim();
  const name = stem || "Untitled";
  return cutText(name[0]!.toUpperCase() + name.slice(1), MOST_NAME);
}

/** A picture as its row tells it; where that cannot be read, as much as can, said to be so: one odd row never hides the others. */
export function readablePicture(row: Record<string, unknown>): PictureSummary {
  const read = PictureSummary.safeParse(row);
  if (read.success) return read.data;
  const unreadable = {
    format: "unknown",
    bits: 8,
    profile: "unknown",
    capture: {},
    notes: ["Unreadable record: what the file said of itself cannot be shown."],
  };
  return PictureSummary.parse({ ...row, facts: unreadable });
}

/** One picture, deleted or not. Errors: AppError `not_found`. */
export async function getPicture(sql: Sql, id: string): Promise<PictureSummary> {
  const [row] = await sql`${selectPictures(sql)} where p.id = ${id}`;
  if (!row) throw new AppError("not_found", "this picture is not here");
  return readablePicture(row);
}

/** Where a picture's original is stored. Errors: AppError `not_found`. */
export async function pictureBlob(sql: Sql, id: string): Promise<string> {
  const [row] = await sql<{ blobId: string }[]>`select blob_id as "blobId" from picture where id = ${id}`;
  if (!row) throw new AppError("not_found", "this picture is not here");
  return row.blobId;
}

/** Renames, rates, deletes or brings back; deleting keeps everything, so that it can be undone. */
export async function changePicture(sql: Sql, id: string, change: PictureChange): Promise<PictureSummary> {
  const updated = await sql`
    update picture set
      name = coalesce(${change.name ?? null}, name),
      rating = coalesce(${change.rating ?? null}, rating),
      deleted_at = case ${change.deleted ?? null}::boolean when true then now() when false then null else deleted_at end
    where id = ${id}
  `;
  if (updated.count === 0) throw new AppError("not_found", "this picture is not here");
  return getPicture(sql, id);
}

/** Rows that `readablePicture` reads. */
export function selectPictures(sql: Sql) {
  return sql`
    select p.id, p.name, p.width, p.height, b.bytes, p.facts, p.rating, p.created_at as "createdAt"
    from picture p join blob b on b.id = p.blob_id
  `;
}
