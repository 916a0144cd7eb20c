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

/** How long a blob is, and its checksum. Errors: AppError `not_found` where it is not here whole. */
export async function blobFacts(sql: Queryable, id: string): Promise<{ bytes: number; sha256: string }> {
  const [blob] = await sql<{ bytes: string; sha256: string | null }[]>`select bytes, sha256 from blob where id = ${id}`;
  if (!blob?.sha256) throw new AppError("not_found", "these bytes are not here");
  return { bytes: Number(blob.bytes), sha256: blob.sha256 };
}

/**
 * The bytes of a blob, a chunk at a time, checked against the stored checksum at the end.
 *
 * Errors  AppError `not_found`, `damaged`.
 */
export async function* readBlob(sql: Queryable, id: string): AsyncGenerator<Buffer> {
  const { bytes, sha256 } = await blobFacts(sql, id);
  const hash = createHash("sha256");
  for await (const data of readChunks(sql, id, bytes, 0)) {
    hash.update(data);
    yield data;
  }
  if (hash.digest("hex") !== sha256) throw new AppError("damaged", "the stored file no longer agrees with its checksum");
}

async function* readChunks(sql: Queryable, id: string, bytes: number, from: number): AsyncGenerator<Buffer> {
  const chunks = Math.ceil(bytes / CHUNK_BYTES);
  for (let number = from; number < chunks; number++) {
    const [row] = await sql<{ data: Buffer }[]>`select data from blob_chunk where blob_id = ${id} and number = ${number}`;
    if (!row) throw new AppError("damaged", `part ${number + 1} of ${chunks} of the stored file is missing`);
    yield row.data;
  }
}

/** Bytes `first` to `last` of a blob; what was cut out is not checked against the checksum of the whole. */
async function* readPart(sql: Queryable, id: string, { first, last }: ByteRange): AsyncGenerator<Buffer> {
  const { bytes } = await blobFacts(sql, id);
  const start = Math.floor(first / CHUNK_BYTES);
  let at = start * CHUNK_BYTES;
  for await (const data of readChunks(sql, id, bytes, start)) {
    yield data.subarray(Math.max(first - at, 0), last + 1 - at);
    at += data.length;
    if (at > last) return;
  }
}

/** The first and the last byte wanted. */
export interface ByteRange {
  first: number;
  last: number;
}

/** A blob, or a part of it, as a web stream with back-pressure. */
export function blobStream(sql: Queryable, id: string, range?: ByteRange): ReadableStream<Uint8Array> {
  const chunks = range ? readPart(sql, id, range) : readBlob(sql, id);
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
