import { z } from "zod";
import { ExportStatus } from "@/contracts/api";
import { EXPORT_FORMAT_FACTS, ExportSettings } from "@/contracts/exportSettings";
import { Plan } from "@/contracts/plan";
import { PLAN_VERSION } from "@/core/plan/plan";
import type { Queryable, Sql } from "../db";
import { AppError } from "../errors";
import { addJob, cancelJob } from "../jobs/jobs";
import { unstowPlan } from "../prints/planStore";
import { fileNameOf } from "./fileName";

export const EXPORT_JOB = "export";

/** Puts an export of one revision in line. Errors: AppError `not_found`, also where the print is just being deleted for good. */
export async function requestExport(sql: Sql, printId: string, revisionId: string, settings: ExportSettings): Promise<ExportStatus> {
  const id = await sql.begin(async (tx) => {
    // Held, so that it is not deleted before its export is there to be deleted with it.
    const [named] = await tx<{ picture: string; print: string }[]>`
      select pic.name as picture, p.name as print
      from print p join picture pic on pic.id = p.picture_id join revision r on r.print_id = p.id
      where p.id = ${printId} and r.id = ${revisionId} for key share of p
    `;
    if (!named) throw new AppError("not_found", "this print or this step of it is not here");
    const { extension } = EXPORT_FORMAT_FACTS[settings.format];
    const fileName = fileNameOf(`${named.picture} ${named.print}${settings.maskOf === undefined ? "" : " mask"}`, extension);
    const job = await addJob(tx, EXPORT_JOB);
    await tx`
      insert into export (id, print_id, revision_id, settings, file_name)
      values (${job}, ${printId}, ${revisionId}, ${tx.json(settings)}, ${fileName})
    `;
    return job;
  });
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
  await cancelJob(sql, id);
  return getExport(sql, id);
}

/** The finished file's blob. Errors: AppError `not_found` while there is none. */
export async function exportBlob(sql: Sql, id: string): Promise<string> {
  const [row] = await sql<{ blobId: string | null }[]>`select blob_id as "blobId" from export where id = ${id}`;
  if (!row?.blobId) throw new AppError("not_found", "this export has no file yet");
  return row.blobId;
}

const Work = z.object({ pictureBlob: z.uuid(), plan: Plan, settings: ExportSettings });
export type ExportWork = z.infer<typeof Work>;

/** What an export is made of. Errors: AppError `unreadable` for a plan or settings that this version cannot read, saying why. */
export async function exportWork(sql: Sql, id: string): Promise<ExportWork> {
  const [row] = await sql<{ pictureBlob: string; plan: unknown; settings: unknown }[]>`
    select pic.blob_id as "pictureBlob", r.plan, e.settings
    from export e join revision r on r.id = e.revision_id join print p on p.id = e.print_id join picture pic on pic.id = p.picture_id
    where e.id = ${id}
  `;
  if (!row) throw new AppError("not_found", "this export is not here");
  const version = (row.plan as { version?: unknown } | null)?.version;
  if (typeof version === "number" && version > PLAN_VERSION)
    throw new AppError("unreadable", `the plan is of a newer version of Nigrographe (${version}; this one reads up to ${PLAN_VERSION})`);
  const work = Work.safeParse({ ...row, plan: await unstowed(sql, row.plan) });
  if (work.success) return work.data;
  const [issue] = work.error.issues;
  throw new AppError("unreadable", `the plan cannot be read: ${issue!.path.join(".")} ${issue!.message}`);
}

async function unstowed(sql: Sql, plan: unknown): Promise<unknown> {
  return unstowPlan(sql, plan).catch((error: unknown) => {
    if (error instanceof TypeError) return plan; // not shaped as a plan at all: the schema says where
    throw error;
  });
}

/** Notes the file an export has come to, in the caller's transaction. */
export async function setExportFile(sql: Queryable, id: string, blobId: string): Promise<void> {
  await sql`update export set blob_id = ${blobId} where id = ${id}`;
}

function selectExports(sql: Sql) {
  return sql`
    select e.id, e.print_id as "printId", e.settings, e.file_name as "fileName", j.state, j.progress, j.message,
      b.bytes, e.created_at as "createdAt"
    from export e join job j on j.id = e.id left join blob b on b.id = e.blob_id
  `;
}
