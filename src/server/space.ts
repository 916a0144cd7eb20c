import { mkdirSync } from "node:fs";
import { statfs } from "node:fs/promises";
import { AppError } from "./errors";
import { settings } from "./settings";

/** With less than this left, what needs room is not begun: edits, which are small, go on. */
export const LEAST_ROOM_BYTES = 100 * 1024 ** 2;

/** Errors: AppError `no_space` where the disk with our data is all but full, before anything is begun. `free` tells the bytes left. */
export async function needRoom(words: string, free: () => Promise<number> = freeBytes): Promise<void> {
  const left = await free();
  if (left >= LEAST_ROOM_BYTES) return;
  throw new AppError(
    "no_space",
    `${words} was not begun: the disk has ${Math.max(Math.floor(left / 1024 ** 2), 0)} MB left. What is saved is safe and edits go on; make room and try again`,
  );
}

async function freeBytes(): Promise<number> {
  const { cacheFolder } = settings();
  mkdirSync(cacheFolder, { recursive: true });
  const { bavail, bsize } = await statfs(cacheFolder);
  return bavail * bsize;
}
