import { mkdir } from "node:fs/promises";
import { join } from "node:path";
import type { PictureTask } from "@/engine/node/pictureTasks";
import { readSealed } from "@/engine/node/sealed";
import type { Sql } from "../db";
import { pictureBlob } from "../pictures/pictures";
import { folderOf, pictureThread, preparedFolder } from "../pictures/preparedFolder";
import { thumbnailFolder } from "../settings";
import { sourceThumbnail } from "../sweep";
import { getPrint, getRevision } from "./prints";

const LONG_EDGE = 560;

/** A small JPEG of a print as it stands, made once for each revision. Errors: AppError `not_found`. */
export async function printThumbnail(sql: Sql, printId: string): Promise<Uint8Array<ArrayBuffer>> {
  const print = await getPrint(sql, printId);
  return kept(`${print.head}.jpg`, async (file) => {
    const folder = await prepared(sql, print.pictureId);
    const { plan } = await getRevision(sql, printId, print.head);
    return { kind: "thumbnail", folder, plan, longEdge: LONG_EDGE, file };
  });
}

/** A small JPEG of a picture in its own colours, made once. Errors: AppError `not_found`. */
export async function pictureThumbnail(sql: Sql, pictureId: string): Promise<Uint8Array<ArrayBuffer>> {
  return kept(sourceThumbnail(await pictureBlob(sql, pictureId)), async (file) => {
    return { kind: "source", folder: await prepared(sql, pictureId), longEdge: LONG_EDGE, file };
  });
}

async function prepared(sql: Sql, pictureId: string): Promise<string> {
  const blobId = await pictureBlob(sql, pictureId);
  await preparedFolder(sql, blobId);
  return folderOf(blobId);
}

/** A file of the cache, made by a task where it is not there whole. */
async function kept(name: string, task: (file: string) => Promise<PictureTask>): Promise<Uint8Array<ArrayBuffer>> {
  const folder = thumbnailFolder();
  const file = join(folder, name);
  const there = await readSealed(file);
  if (there) return there;
  await mkdir(folder, { recursive: true });
  await pictureThread().do(await task(file));
  const made = await readSealed(file);
  if (!made) throw new Error("the thumbnail vanished from the cache");
  return made;
}
