import { readdir, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { BIN_DAYS } from "@/contracts/bin";
import { EXPORT_KEPT_DAYS } from "@/contracts/exportSettings";
import { clearBin } from "./bin/bin";
import type { Sql } from "./db";
import { MIXES, PLACEMENTS } from "./saved/saved";
import { pictureFolder, settings, thumbnailFolder } from "./settings";

// Clears away what nobody can reach any more. Whatever a person could still ask for is kept, and whatever may still be arriving.

/** What belongs to nothing is left alone for so long: it may be on its way. */
const ARRIVING_DAYS = 1;
const USED_WITHIN_MS = 3_600_000;
const DAY_MS = 86_400_000;
const SWEEP_LOCK = 74_110_228;

/** How many were cleared away, of each kind. */
export interface Swept {
  prints: number;
  pictures: number;
  exports: number;
  blobs: number;
  pieces: number;
  /** Placements and mixes. */
  saved: number;
  files: number;
}

/** Sweeps once, unless another process is at it. */
export async function sweep(sql: Sql): Promise<Swept | undefined> {
  const rows = await sql.begin(async (tx) => {
    const [lock] = await tx<{ free: boolean }[]>`select pg_try_advisory_xact_lock(${SWEEP_LOCK}) as free`;
    if (!lock!.free) return undefined;
    const old = (days: number) => tx`now() - make_interval(days => ${days})`;
    const exports = await tx`
      delete from export e using job j
      where j.id = e.id and j.state in ('done', 'failed', 'cancelled') and j.finished_at < ${old(EXPORT_KEPT_DAYS)}
    `;
    const { prints, pictures } = await clearBin(tx, { days: BIN_DAYS });
    await tx`delete from job j where j.kind = 'export' and not exists (select from export where id = j.id)`;
    const blobs = await tx`
      delete from blob b where b.created_at < ${old(ARRIVING_DAYS)}
        and not exists (select from picture where blob_id = b.id) and not exists (select from export where blob_id = b.id)
    `;
    // A step that is being saved names its pieces before it is there itself: none may be under way meanwhile.
    await tx`lock table plan_piece in share row exclusive mode`;
    const pieces = await tx`
      with used as (select distinct m[1] as hash from revision, regexp_matches(plan::text, '([0-9a-f]{64})', 'g') m)
      delete from plan_piece where created_at < ${old(ARRIVING_DAYS)} and hash not in (select hash from used)
    `;
    let saved = 0;
    for (const { table } of [PLACEMENTS, MIXES]) saved += (await tx`delete from ${tx(table)} where deleted_at < ${old(BIN_DAYS)}`).count;
    return { prints, pictures, exports: exports.count, blobs: blobs.count, pieces: pieces.count, saved };
  });
  return rows && { ...rows, files: await sweepFiles(sql) };
}

/** The name of the small picture in colour of an original. */
export const sourceThumbnail = (blobId: string) => `source-${blobId}.jpg`;

async function sweepFiles(sql: Sql): Promise<number> {
  const { cacheFolder, cacheBytes } = settings();
  const blobs = new Set((await sql<{ id: string }[]>`select id from blob`).map(({ id }) => id));
  const heads = (await sql<{ id: string }[]>`select head as id from print`).map(({ id }) => `${id}.jpg`);
  const shown = new Set([...heads, ...[...blobs].map(sourceThumbnail)]);
  const isOld = ({ usedMs }: Entry) => Date.now() - usedMs > ARRIVING_DAYS * DAY_MS;
  const pictures = await entriesOf(pictureFolder());
  const stray = [
    ...pictures.filter((entry) => !blobs.has(entry.name) && isOld(entry)),
    ...(await entriesOf(join(cacheFolder, "arriving"))).filter(isOld),
    ...(await entriesOf(thumbnailFolder())).filter((entry) => !shown.has(entry.name) && isOld(entry)),
    ...(await entriesOf(tmpdir(), EXPORT_FOLDER)).filter(isOld),
  ];
  const kept = pictures.filter((entry) => !stray.includes(entry));
  const over = leastUsed(kept, cacheBytes);
  for (const { path } of [...stray, ...over]) await rm(path, { recursive: true, force: true });
  return stray.length + over.length;
}

/** Where exports are made, under the system's folder for such things. */
export const EXPORT_FOLDER = "nigrographe-export-";

export interface Entry {
  name: string;
  path: string;
  bytes: number;
  /** When it was used last. */
  usedMs: number;
}

/** Entries to let go of so that the rest fit, the least used first; never one that was used within the hour. */
export function leastUsed(entries: readonly Entry[], mostBytes: number): Entry[] {
  let bytes = entries.reduce((sum, entry) => sum + entry.bytes, 0);
  return entries
    .toSorted((a, b) => a.usedMs - b.usedMs)
    .filter((entry) => {
      if (bytes <= mostBytes || Date.now() - entry.usedMs < USED_WITHIN_MS) return false;
      bytes -= entry.bytes;
      return true;
    });
}

/** What lies in a folder, by names that begin so: files, and folders with all in them. */
async function entriesOf(folder: string, begins = ""): Promise<Entry[]> {
  const names = (await readdir(folder).catch(() => [])).filter((name) => name.startsWith(begins));
  return (await Promise.all(names.map((name) => entryOf(join(folder, name), name)))).flat();
}

async function entryOf(path: string, name: string): Promise<Entry[]> {
  const facts = await stat(path).catch(() => undefined);
  if (!facts) return []; // gone meanwhile
  if (!facts.isDirectory()) return [{ name, path, bytes: facts.size, usedMs: facts.mtimeMs }];
  const inside = await entriesOf(path);
  const usedMs = Math.max(facts.mtimeMs, ...inside.map((entry) => entry.usedMs));
  return [{ name, path, bytes: inside.reduce((sum, entry) => sum + entry.bytes, 0), usedMs }];
}
