import { createReadStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type PgBoss from "pg-boss";
import { EXPORT_FORMAT_FACTS, exportNoise } from "@/contracts/exportSettings";
import { AppError } from "../errors";
import { CoreError } from "@/core/errors";
import { renderPicture } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { storeBlob } from "../blobs/blobs";
import type { Sql } from "../db";
import { preparedFolder } from "../pictures/preparedFolder";
import { EXPORT_QUEUE } from "./boss";
import { failExport, finishExport, requeueStaleExports, takeExport, touchExport, type ExportWork } from "./exports";

export interface ExportWorkerOptions {
  threadFile: URL | undefined;
  threads: number;
}

const TOUCH_EVERY_MS = 250;
const SWEEP_EVERY_MS = 10_000;
/** Rendering is about half of an export's time, encoding the other. */
const RENDER_SHARE = 0.6;

/** Takes exports from the queue until `stop` is called. */
export async function startExportWorker(sql: Sql, boss: PgBoss, options: ExportWorkerOptions): Promise<{ stop(): Promise<void> }> {
  await boss.createQueue(EXPORT_QUEUE);
  await boss.work<{ exportId: string }>(EXPORT_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) => {
    if (job) await runExport(sql, job.data.exportId, options);
  });
  const sweep = setInterval(() => void requeueStaleExports(sql, boss).catch(() => {}), SWEEP_EVERY_MS);
  return {
    async stop() {
      clearInterval(sweep);
      await boss.stop({ graceful: false });
    },
  };
}

/** Renders one export and stores its file, unless it is cancelled on the way. */
export async function runExport(sql: Sql, id: string, options: ExportWorkerOptions): Promise<void> {
  const work = await takeExport(sql, id);
  if (!work) return;
  const abort = new AbortController();
  let progress = 0;
  const pulse = setInterval(() => {
    touchExport(sql, id, progress).then(
      (wanted) => wanted || abort.abort(),
      () => {},
    );
  }, TOUCH_EVERY_MS);
  const folder = await mkdtemp(join(tmpdir(), "nigrographe-"));
  try {
    const file = await renderToFile(sql, work, folder, options, abort.signal, (part) => (progress = RENDER_SHARE * part));
    const blob = await storeBlob(sql, createReadStream(file), Number.MAX_SAFE_INTEGER);
    if (!(await finishExport(sql, id, blob.id))) await sql`delete from blob where id = ${blob.id}`;
  } catch (error) {
    if (error instanceof CoreError && error.code === "cancelled") return;
    await failExport(sql, id, (error as Error).message);
  } finally {
    clearInterval(pulse);
    await rm(folder, { recursive: true, force: true });
  }
}

async function renderToFile(
  sql: Sql,
  { pictureBlob, plan, settings, fileName }: ExportWork,
  folder: string,
  options: ExportWorkerOptions,
  signal: AbortSignal,
  onProgress: (part: number) => void,
): Promise<string> {
  const { files } = await preparedFolder(sql, pictureBlob);
  const { depth } = EXPORT_FORMAT_FACTS[settings.format];
  const overview = files.at(-1);
  const maskOf = settings.maskOf === undefined ? undefined : plan.passes.findIndex(({ id }) => id === settings.maskOf);
  if (maskOf === -1) throw new AppError("not_found", "the pass whose mask is wanted is not in this print's plan");
  const rendered = await renderPicture(files[0]!, plan, {
    ...options,
    depth,
    noise: exportNoise(settings),
    longEdge: settings.longEdge,
    maskOf,
    overview,
    signal,
    onProgress,
  });
  const file = join(folder, fileName);
  await writePrint(rendered, settings, file);
  if (signal.aborted) throw new CoreError("cancelled", "the export was cancelled");
  return file;
}
