import { rename } from "node:fs/promises";
import sharp from "sharp";
import type { Plan } from "@/core/plan/plan";
import { CoreError } from "@/core/errors";
import { preparePicture, readPrepared } from "./preparePicture";
import { renderPicture } from "./renderPicture";

/** Work on pictures that is too heavy for a request handler. */
export type PictureTask =
  | { kind: "prepare"; path: string; folder: string }
  /** A small JPEG of a print, made from the preview level. */
  | { kind: "thumbnail"; folder: string; plan: Plan; longEdge: number; file: string };

/** Does one task in this thread. Errors: PictureError, CoreError. */
export async function doPictureTask(task: PictureTask): Promise<void> {
  if (task.kind === "prepare") {
    await preparePicture(task.path, task.folder);
    return;
  }
  const prepared = await readPrepared(task.folder);
  const preview = prepared?.files.at(-1);
  if (!preview) throw new CoreError("bad_file", "the picture has not been prepared");
  const { size, levels } = await renderPicture(preview, task.plan, { depth: 8, longEdge: task.longEdge });
  const unfinished = `${task.file}.${Math.random().toString(36).slice(2)}`;
  await sharp(levels, { raw: { ...size, channels: 1 } })
    .toColourspace("b-w")
    .jpeg({ quality: 88 })
    .toFile(unfinished);
  await rename(unfinished, task.file);
}
