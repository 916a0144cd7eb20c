import { createHash, randomUUID } from "node:crypto";
import type { Queryable, Sql } from "../db";
import { AppError } from "../errors";

const CHUNK_BYTES = 1024 * 1024;

/**
 * Stores a stream of bytes in chunks, holding one chunk at a time. A stream that fails or grows over
 * `mostBytes` leaves nothing behind.
 *
 * Errors  AppError `too_large`; whatever the stream throws.
 */
export async function storeBlob(
  sql: Sql,
  bytes: AsyncIterable<Uint8Array>,
  mostBytes: number,
): Promise<{ id: string; sha256: string; bytes: number }> {
  const id = randomUUID();
  await sql`insert into blob (id) values (${id})`;
  try {
    const hash = createHash("sha256");
    let total = 0;
    let number = 0;
    for await (const chunk of rechunked(bytes)) {
      total += chunk.length;
      if (total > mostBytes) throw new AppError("too_large", `more than ${Math.round(mostBytes / 1024 ** 2)} MB`);
      hash.update(chunk);
      await sql`insert into blob_chunk (blob_id, number, data) values (${id}, ${number++}, ${chunk})`;
    }
    const sha256 = hash.digest("hex");
    await sql`update blob set bytes = ${total}, sha256 = ${sha256} where id = ${id}`;
    return { id, sha256, bytes: total };
  } catch (error) {
    await sql`delete from blob where id = ${id}`;
    throw error;
  }
}

/**
 * The bytes of a blob, a chunk at a time, checked against the stored checksum at the end.
 *
 * Errors  AppError `not_found`, `damaged`.
 */
export async function* readBlob(sql: Queryable, id: string): AsyncGenerator<Buffer> {
  const [blob] = await sql<{ bytes: string; sha256: string | null }[]>`select bytes, sha256 from blob where id = ${id}`;
  if (!blob?.sha256) throw new AppError("not_found", "these bytes are not here");
  const hash = createHash("sha256");
  const chunks = Math.ceil(Number(blob.bytes) / CHUNK_BYTES);
  for (let number = 0; number < chunks; number++) {
    const [row] = await sql<{ data: Buffer }[]>`select data from blob_chunk where blob_id = ${id} and number = ${number}`;
    if (!row) throw new AppError("damaged", `part ${number + 1} of ${chunks} of the stored file is missing`);
    hash.update(row.data);
    yield row.data;
  }
  if (hash.digest("hex") !== blob.sha256) throw new AppError("damaged", "the stored file no longer agrees with its checksum");
}

/** A blob as a web stream with back-pressure. */
export function blobStream(sql: Queryable, id: string): ReadableStream<Uint8Array> {
  const chunks = readBlob(sql, id);
  return new ReadableStream({
    async pull(controller) {
      const { done, value } = await chunks.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
    async cancel() {
      await chunks.return(undefined);
    },
  });
}

async function* rechunked(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let pending: Uint8Array[] = [];
  let length = 0;
  for await (const piece of bytes) {
    pending.push(piece);
    length += piece.length;
    if (length < CHUNK_BYTES) continue;
    let joined = Buffer.concat(pending);
    while (joined.length >= CHUNK_BYTES) {
      yield joined.subarray(0, CHUNK_BYTES);
      joined = joined.subarray(CHUNK_BYTES);
    }
    pending = [joined];
    length = joined.length;
  }
  if (length > 0) yield Buffer.concat(pending);
}
