import { readBlob } from "./blobs/blobs";
import type { Sql } from "./db";

/** What was found of the files that are kept. */
export interface Inspection {
  blobs: number;
  damaged: { id: string; words: string }[];
  orphans: { id: string; bytes: number }[];
}

/** Reads every stored file against its checksum, and finds those that nothing refers to. */
export async function inspectData(sql: Sql, onProgress: (done: number, all: number) => void = () => {}): Promise<Inspection> {
  const rows = await sql<{ id: string; bytes: string; name: string | null; isUsed: boolean }[]>`
    select b.id, b.bytes, pic.name, pic.id is not null or e.id is not null as "isUsed"
    from blob b left join picture pic on pic.blob_id = b.id left join export e on e.blob_id = b.id
    order by b.created_at
  `;
  const damaged: Inspection["damaged"] = [];
  for (const [i, { id, name, isUsed }] of rows.entries()) {
    onProgress(i, rows.length);
    try {
      for await (const chunk of readBlob(sql, id)) void chunk;
    } catch (error) {
      // One that is still arriving is not damaged: nothing refers to it yet.
      if (isUsed) damaged.push({ id, words: `${name ? `the original of “${name}”` : "an export"}: ${(error as Error).message}` });
    }
  }
  const orphans = rows.filter(({ isUsed }) => !isUsed).map(({ id, bytes }) => ({ id, bytes: Number(bytes) }));
  return { blobs: rows.length, damaged, orphans };
}
