import { createReadStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sharpeningFor } from "@/core/passes/sharpen/forOutput";
import { EXPORT_FORMAT_FACTS, exportNoise, exportSpace } from "@/contracts/exportSettings";
import { CoreError } from "@/core/errors";
import { confinedById } from "@/core/plan/editRegions";
import { renderToFile, type RenderOptions } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { storeBlob } from "../blobs/blobs";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { finishJob } from "../jobs/jobs";
import { CutOff } from "../jobs/passing";
import type { JobKind } from "../jobs/worker";
import { cleanedLevels, preparedFolder } from "../pictures/preparedFolder";
import { EXPORT_FOLDER } from "../sweep";
import { exportWork, setExportFile, type ExportWork } from "./exports";

export interface ExportOptions {
  threadFile: URL | undefined;
  threads: number;
}

/** Rendering is about half of an export's time, encoding the other. */
const RENDER_SHARE = 0.6;

/** Renders a print and stores its file. */
export function exportJob(options: ExportOptions): JobKind {
  return {
    async run(sql, job, { signal, onProgress }) {
      const work = await exportWork(sql, job.id);
      const folder = await mkdtemp(join(tmpdir(), EXPORT_FOLDER));
      try {
        const file = await writeExport(sql, work, folder, options, signal, (part) => onProgress(RENDER_SHARE * part));
        const blob = await storeBlob(sql, createReadStream(file), Number.MAX_SAFE_INTEGER);
        const isKept = await sql.begin(async (tx) => {
          const isOurs = await finishJob(tx, job);
          if (isOurs) await setExportFile(tx, job.id, blob.id);
          return isOurs;
        });
        if (!isKept) await sql`delete from blob where id = ${blob.id}`;
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    },
  };
}

async function writeExport(
  sql: Sql,
  { pictureBlob, plan, settings }: ExportWork,
  folder: string,
  options: ExportOptions,
  signal: AbortSignal,
  onProgress: (part: number) => void,
): Promise<string> {
  const { files, exif } = await preparedFolder(sql, pictureBlob);
  const { depth, extension } = EXPORT_FORMAT_FACTS[settings.format];
  const overview = files.at(-1);
  const { maskOf } = settings;
  if (maskOf !== undefined && !confinedById(plan, maskOf))
    throw new AppError("not_found", "the pass whose mask is wanted is not in this print's plan");
  const renderOptions: RenderOptions = {
    ...options,
    depth,
    noise: exportNoise(settings),
    sharpen: sharpeningFor(settings.sharpen),
    space: exportSpace(settings),
    longEdge: settings.longEdge,
    maskOf,
    overview,
    cleaned: async () => {
      const levels = await cleanedLevels(sql, pictureBlob);
      return { full: levels[0]!, overview: levels.at(-1) };
    },
    signal,
    onProgress,
  };
  const rendered = await renderToFile(files[0]!, plan, renderOptions, join(folder, "levels.tif")).catch((error: unknown) => {
    // A thread that was killed, for want of memory most likely: another try may have it.
    if (error instanceof CoreError && error.code === "cut_off") throw new CutOff(error.message, { cause: error });
    throw error;
  });
  const file = join(folder, `print.${extension}`);
  await writePrint(rendered, settings, file, exif === undefined ? undefined : Buffer.from(exif, "base64"));
  if (signal.aborted) throw new CoreError("cancelled", "the export was cancelled");
  return file;
}
