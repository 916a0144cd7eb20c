import { rename } from "node:fs/promises";
import sharp from "sharp";
import type { Plan } from "@/core/plan/plan";
import { CoreError } from "@/core/errors";
import { preparePicture, readPrepared } from "./preparePicture";
import { compilePlan } from "@/core/plan/compilePlan";
import { smallPrint } from "@/core/frame/frame";
import { lookTable } from "@/core/view/toneTables";
import type { Showing } from "../stageTypes";
import { stageOf } from "./stageOf";

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
  const [full, preview] = [prepared?.files[0], prepared?.files.at(-1)];
  if (!full || !preview) throw new CoreError("bad_file", "the picture has not been prepared");
  const { pictureAt, print, size } = smallPrint(task.plan.frame, full, preview, task.longEdge);
  const rgba = stageOf(preview).reducedTo(pictureAt).render(compilePlan(task.plan), undefined, FINISHED, { print });
  const unfinished = `${task.file}.${Math.random().toString(36).slice(2)}`;
  await sharp(rgba, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .toColourspace("b-w")
    .jpeg({ quality: 88 })
    .toFile(unfinished);
  await rename(unfinished, task.file);
}

const FINISHED: Showing = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false };
