import { mkdir, rm, utimes } from "node:fs/promises";
import { dirname, join } from "node:path";
import type { PreparedPicture, PreparedLevel } from "@/contracts/preparedPicture";
import { decodePicture, type PictureFacts } from "./decodePicture";
import type { RawLayout } from "./rawLevels";
import { nameFolder } from "./sealed";
import { damagedLevels, readSealedLevels, writeSealedLevels } from "./sealedLevels";
import { smallerLevels } from "./smallerLevels";

/** A prepared picture on disk: what is sent to the page, with the file of each level. */
export interface PreparedFolder extends PreparedPicture {
  facts: PictureFacts;
  /** What of the camera's notes holds for prints too: an Exif block in base64. */
  exif: string | undefined;
  files: RawLayout[];
}

/** Another name whenever levels are laid out otherwise: folders of an older kind are made anew. */
const INDEX = "prepared-6.json";

/** The prepared picture in a folder, or undefined where it has not been prepared (or was cleared away, or is not whole). */
export async function readPrepared(folder: string): Promise<PreparedFolder | undefined> {
  const prepared = await readSealedLevels<PreparedFolder>(folder, INDEX);
  if (!prepared) return undefined;
  const now = new Date();
  await utimes(join(folder, INDEX), now, now).catch(() => {}); // used: not to be cleared away before those that were not
  return prepared;
}

/** Names of its files that are not as they were written. */
export function damagedPrepared(folder: string): Promise<string[]> {
  return damagedLevels(folder, INDEX);
}

/**
 * Decodes a picture file and lays its levels out in `folder`: full size as stored, then halves down to
 * the preview, and the preview itself, area-averaged in linear light, with their grain. The folder appears only when whole.
 *
 * Errors  PictureError for a file that cannot be taken.
 */
export async function preparePicture(path: string, folder: string): Promise<PreparedFolder> {
  const unfinished = `${folder}.${process.pid}.${Math.random().toString(36).slice(2)}`;
  await mkdir(unfinished, { recursive: true });
  try {
    const decoded = await decodePicture(path, join(unfinished, "full"));
    const { facts, exif, ...full } = decoded;
    const files: RawLayout[] = [full, ...smallerLevels(full, unfinished)];
    const levels = files.map(({ width, height, depth, space, grain }): PreparedLevel => ({
      width,
      height,
      depth,
      space,
      scale: Math.max(width, height) / Math.max(full.width, full.height),
      hasGrain: !!grain,
    }));
    const notes = exif && Buffer.from(exif).toString("base64");
    const prepared: PreparedFolder = { width: full.width, height: full.height, levels, facts, files, exif: notes };
    await writeSealedLevels(unfinished, INDEX, prepared);
    await mkdir(dirname(folder), { recursive: true });
    await nameFolder(unfinished, folder).catch(async (error: NodeJS.ErrnoException) => {
      // Another process was quicker: its folder is as good.
      if (error.code !== "ENOTEMPTY" && error.code !== "EEXIST") throw error;
    });
    return (await readPrepared(folder)) ?? prepared;
  } finally {
    await rm(unfinished, { recursive: true, force: true });
  }
}
