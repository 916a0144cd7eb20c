import { mkdir } from "node:fs/promises";
import { join } from "node:path";
import { mapStrokes } from "@/core/plan/mapStrokes";
import type { Plan } from "@/core/plan/plan";
import { readCleaned } from "@/engine/node/cleanPicture";
import type { PictureTask } from "@/engine/node/pictureTasks";
import { readSealed } from "@/engine/node/sealed";
import { TooLong } from "@/engine/node/taskThread";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { pictureBlob } from "../pictures/pictures";
import { folderOf, pictureThread, preparedFolder, type Lane } from "../pictures/preparedFolder";
import { thumbnailFolder } from "../settings";
import { sourceThumbnail } from "../sweep";
import { readRevision } from "./planWork";
import { getPrint } from "./prints";

const LONG_EDGE = 560;

/** A small JPEG of a print as it stands, made once for each revision. Errors: AppError `not_found`. */
export async function printThumbnail(sql: Sql, printId: string): Promise<Uint8Array<ArrayBuffer>> {
  const print = await getPrint(sql, printId);
  return kept(`${print.head}.jpg`, async (file) => {
    const folder = await prepared(sql, print.pictureId);
    const { plan } = await readRevision(printId, print.head);
    return { task: { kind: "thumbnail", folder, plan, longEdge: LONG_EDGE, file }, lane: await laneFor(plan, folder) };
  });
}

/** A small JPEG of a picture in its own colours, made once. Errors: AppError `not_found`. */
export async function pictureThumbnail(sql: Sql, pictureId: string): Promise<Uint8Array<ArrayBuffer>> {
  return kept(sourceThumbnail(await pictureBlob(sql, pictureId)), async (file) => {
    return { task: { kind: "source", folder: await prepared(sql, pictureId), longEdge: LONG_EDGE, file }, lane: "small" };
  });
}

async function prepared(sql: Sql, pictureId: string): Promise<string> {
  const blobId = await pictureBlob(sql, pictureId);
  await preparedFolder(sql, blobId);
  return folderOf(blobId);
}

/** Packed paths of so many letters are drawn in a blink. */
const LITTLE_BRUSHWORK = 200_000;

/** Whether a print is made small at once, or takes its time: many long strokes, or colour that is not cleaned yet. */
async function laneFor(plan: Plan, folder: string): Promise<Lane> {
  let letters = 0;
  mapStrokes(plan, (strokes) => {
    for (const { path } of strokes) letters += path.length;
    return strokes;
  });
  if (letters > LITTLE_BRUSHWORK) return "large";
  return plan.mix.clean > 0 && !(await readCleaned(folder)) ? "large" : "small";
}

/** A file of the cache, made by a task where it is not there whole. */
async function kept(name: string, work: (file: string) => Promise<{ task: PictureTask; lane: Lane }>): Promise<Uint8Array<ArrayBuffer>> {
  const folder = thumbnailFolder();
  const file = join(folder, name);
  const there = await readSealed(file);
  if (there) return there;
  if (tooLong.has(name)) throw takesTooLong();
  await mkdir(folder, { recursive: true });
  const { task, lane } = await work(file);
  try {
    await pictureThread(lane).do(task, { withinMs: MADE_WITHIN_MS });
  } catch (error) {
    if (!(error instanceof TooLong)) throw error;
    tooLong.add(name);
    throw takesTooLong();
  }
  const made = await readSealed(file);
  if (!made) throw new Error("the thumbnail vanished from the cache");
  return made;
}

/** Of so few pixels a small picture is made in a second; only brushwork of thousands of lengths of the picture takes longer than this. */
const MADE_WITHIN_MS = 30_000;
/** Names that took longer: they are not tried again while the server runs. Each is a revision that somebody made. */
const tooLong = new Set<string>();

const takesTooLong = () =>
  new AppError(
    "unreadable",
    "the brushwork of this print takes too long to be shown small. Nothing of it is lost: the bench and exports show it",
  );
