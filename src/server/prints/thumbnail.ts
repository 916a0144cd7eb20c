import { mkdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { Sql } from "../db";
import { pictureBlob } from "../pictures/pictures";
import { folderOf, pictureThread, preparedFolder } from "../pictures/preparedFolder";
import { settings } from "../settings";
import { getPrint, getRevision } from "./prints";

const LONG_EDGE = 560;

/** A small JPEG of a print as it stands, made once for each revision. Errors: AppError `not_found`. */
export async function printThumbnail(sql: Sql, printId: string): Promise<Uint8Array<ArrayBuffer>> {
  const print = await getPrint(sql, printId);
  const folder = join(settings().cacheFolder, "thumbnails");
  const file = join(folder, `${print.head}.jpg`);
  const kept = await readFile(file).catch(() => undefined);
  if (kept) return new Uint8Array(kept);
  const blobId = await pictureBlob(sql, print.pictureId);
  await preparedFolder(sql, blobId);
  const { plan } = await getRevision(sql, printId, print.head);
  await mkdir(folder, { recursive: true });
  await pictureThread().do({ kind: "thumbnail", folder: folderOf(blobId), plan, longEdge: LONG_EDGE, file });
  return new Uint8Array(await readFile(file));
}
