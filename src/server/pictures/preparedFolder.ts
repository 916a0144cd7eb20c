import { createWriteStream } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
import { randomUUID } from "node:crypto";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { readCleaned } from "@/engine/node/cleanPicture";
import { readPrepared, type PreparedFolder } from "@/engine/node/preparePicture";
import type { RawLayout } from "@/engine/node/rawLevels";
import { PictureError, type PictureErrorCode } from "@/engine/node/pictureError";
import type { PictureTask } from "@/engine/node/pictureTasks";
import { TaskThread, type TaskError } from "@/engine/node/taskThread";
import { readBlob } from "../blobs/blobs";
import type { Sql } from "../db";
import { pictureFolder, settings } from "../settings";

/** Work waits behind its like: small pictures of plain prints never behind an import, or one of a print of thousands of strokes. */
export type Lane = "small" | "large" | "import";

const kept = globalThis as unknown as { nigrographePictureThreads?: Map<Lane, TaskThread<PictureTask>> };

/** The thread of this process that does picture tasks of a lane. */
export function pictureThread(lane: Lane): TaskThread<PictureTask> {
  const threads = (kept.nigrographePictureThreads ??= new Map());
  const thread = threads.get(lane) ?? new TaskThread<PictureTask>(join(process.cwd(), "dist", "pictureThread.mjs"), revived);
  threads.set(lane, thread);
  return thread;
}

function revived({ name, code, message }: TaskError): Error | undefined {
  return name === "PictureError" ? new PictureError(code as PictureErrorCode, message) : undefined;
}

export async function closePictureThreads(): Promise<void> {
  await Promise.all([...(kept.nigrographePictureThreads?.values() ?? [])].map((thread) => thread.close()));
}

const underWay = new Map<string, Promise<PreparedFolder>>();

/**
 * The prepared levels of a stored original, made when the cache does not have them; asked for twice
 * at once, made once.
 *
 * Errors  PictureError for bytes that are no usable picture; AppError for bytes that are gone.
 */
export async function preparedFolder(sql: Sql, blobId: string): Promise<PreparedFolder> {
  const folder = folderOf(blobId);
  const there = await readPrepared(folder);
  if (there) return there;
  let making = underWay.get(blobId);
  if (!making) {
    making = prepare(sql, blobId, folder).finally(() => underWay.delete(blobId));
    underWay.set(blobId, making);
  }
  return making;
}

/**
 * The same levels with their colours cleaned, full size first, made when the cache does not have them.
 *
 * Errors  as above.
 */
export async function cleanedLevels(sql: Sql, blobId: string): Promise<RawLayout[]> {
  await preparedFolder(sql, blobId);
  const folder = folderOf(blobId);
  const there = await readCleaned(folder);
  if (there) return there;
  await pictureThread("large").do({ kind: "clean", folder });
  const cleaned = await readCleaned(folder);
  if (!cleaned) throw new Error("the cleaned picture vanished from the cache");
  return cleaned;
}

/** Where the levels of an original are cached. */
export function folderOf(blobId: string): string {
  return join(pictureFolder(), blobId);
}

/** Clears an original's levels from the cache. */
export async function forgetPrepared(blobId: string): Promise<void> {
  await rm(folderOf(blobId), { recursive: true, force: true });
}

async function prepare(sql: Sql, blobId: string, folder: string): Promise<PreparedFolder> {
  const waiting = join(settings().cacheFolder, "arriving");
  await mkdir(waiting, { recursive: true, mode: 0o700 }); // what arrives is nobody else's
  const path = join(waiting, randomUUID());
  try {
    await pipeline(readBlob(sql, blobId), createWriteStream(path));
    await rm(folder, { recursive: true, force: true });
    await pictureThread("import").do({ kind: "prepare", path, folder });
  } finally {
    await rm(path, { force: true });
  }
  const prepared = await readPrepared(folder);
  if (!prepared) throw new Error("the prepared picture vanished from the cache");
  return prepared;
}
