import { randomUUID } from "node:crypto";
import { z } from "zod";
import { ExportStatus } from "@/contracts/api";
import { EXPORT_FORMAT_FACTS, ExportSettings } from "@/contracts/exportSettings";
import { Plan } from "@/contracts/plan";
import type { Sql } from "../db";
import { AppError } from "../errors";
import { unstowPlan } from "../prints/planStore";
import { EXPORT_QUEUE } from "./boss";

/** How long a running export may go without a sign of life before another worker takes it. */
export const STALE_AFTER_S = 20;

export interface JobSender {
  send(queue: string, data: object, options?: object): Promise<string | null>;
}

/** Puts an export of one revision into the queue. Errors: AppError `not_found`. */
export async function requestExport(
  sql: Sql,
  queue: JobSender,
  printId: string,
  revisionId: string,
  settings: ExportSettings,
): Promise<ExportStatus> {
  const [named] = await sql<{ picture: string; print: string }[]>`
    select pic.name as picture, p.name as print
    from print p join picture pic on pic.id = p.picture_id join revision r on r.print_id = p.id
    where p.id = ${printId} and r.id = ${revisionId}
  `;
  if (!named) throw new AppError("not_found", "this print or this step of it is not here");
  const id = randomUUID();
  const { extension } = EXPORT_FORMAT_FACTS[settings.format];
  const fileName = `${fileStem(`${named.picture} ${named.print}${settings.maskOf === undefined ? "" : " mask"}`)}.${extension}`;
  await sql`
    insert into export (id, print_id, revision_id, settings, file_name)
    values (${id}, ${printId}, ${revisionId}, ${sql.json(settings)}, ${fileName})
  `;
  await queue.send(EXPORT_QUEUE, { exportId: id }, { retryLimit: 2 });
  return getExport(sql, id);
}

/** The exports of a print, newest first. */
export async function listExports(sql: Sql, printId: string): Promise<ExportStatus[]> {
  const rows = await sql`${selectExports(sql)} where e.print_id = ${printId} order by e.created_at desc limit 50`;
  return z.array(ExportStatus).parse(rows);
}

/** Errors: AppError `not_found`. */
export async function getExport(sql: Sql, id: string): Promise<ExportStatus> {
  const [row] = await sql`${selectExports(sql)} where e.id = ${id}`;
  if (!row) throw new AppError("not_found", "this export is not here");
  return ExportStatus.parse(row);
}

/** Asks an export to stop: at once while it waits, else when its worker next looks (a fraction of a second). */
export async function cancelExport(sql: Sql, id: string): Promise<ExportStatus> {
  await sql`update export set state = 'cancelled', finished_at = now() where id = ${id} and state in ('waiting', 'running')`;
  return getExport(sql, id);
}

/** The finished file's blob. Errors: AppError `not_found` while there is none. */
export async function exportBlob(sql: Sql, id: string): Promise<string> {
  const [row] = await sql<{ blobId: string | null }[]>`select blob_id as "blobId" from export where id = ${id}`;
  if (!row?.blobId) throw new AppError("not_found", "this export has no file yet");
  return row.blobId;
}

const Work = z.object({ pictureBlob: z.uuid(), plan: Plan, settings: ExportSettings, fileName: z.string() });
export type ExportWork = z.infer<typeof Work>;

/** Takes an export up for rendering; undefined where it is no longer wanted or another worker is at it. */
export async function takeExport(sql: Sql, id: string): Promise<ExportWork | undefined> {
  const taken = await sql`
    update export set state = 'running', progress = 0, touched_at = now()
    where id = ${id} and (state = 'waiting' or (state = 'running' and touched_at < now() - make_interval(secs => ${STALE_AFTER_S})))
  `;
  if (taken.count === 0) return undefined;
  const [row] = await sql`
    select pic.blob_id as "pictureBlob", r.plan, e.settings, e.file_name as "fileName"
    from export e join revision r on r.id = e.revision_id join print p on p.id = e.print_id join picture pic on pic.id = p.picture_id
    where e.id = ${id}
  `;
  return Work.parse({ ...row, plan: await unstowPlan(sql, row!.plan) });
}

/** Notes progress as a sign of life; false where the export was cancelled meanwhile. */
export async function touchExport(sql: Sql, id: string, progress: number): Promise<boolean> {
  const touched = await sql`update export set progress = ${progress}, touched_at = now() where id = ${id} and state = 'running'`;
  return touched.count === 1;
}

/** Ends a running export with its file; false where it was cancelled meanwhile. */
export async function finishExport(sql: Sql, id: string, blobId: string): Promise<boolean> {
  const done = await sql`
    update export set state = 'done', progress = 1, blob_id = ${blobId}, finished_at = now() where id = ${id} and state = 'running'
  `;
  return done.count === 1;
}

export async function failExport(sql: Sql, id: string, message: string): Promise<void> {
  await sql`update export set state = 'failed', message = ${message}, finished_at = now() where id = ${id} and state = 'running'`;
}

/** Sends exports that nobody is at (their worker died, or their job was lost) back into the queue; returns how many. */
export async function requeueStaleExports(sql: Sql, queue: JobSender): Promise<number> {
  const stale = await sql<{ id: string }[]>`
    select id from export where state in ('waiting', 'running') and touched_at < now() - make_interval(secs => ${STALE_AFTER_S})
  `;
  for (const { id } of stale) await queue.send(EXPORT_QUEUE, { exportId: id }, { singletonKey: id, singletonSeconds: STALE_AFTER_S });
  return stale.length;
}

function fileStem(text: string): string {
  return (
    text
      .normalize("NFKD")
      .replace(/[^\w\s-]/g, "")
      .trim()
      .replace(/\s+/g, "-")
      .toLowerCase() || "print"
  );
}

function selectExports(sql: Sql) {
  return sql`
    select e.id, e.print_id as "printId", e.settings, e.file_name as "fileName", e.state, e.progress, e.message,
      b.bytes, e.created_at as "createdAt"
    from export e left join blob b on b.id = e.blob_id
  `;
}
