import { join } from "node:path";
import { NewPrint, NewRevision, type PrintSummary, type Revision } from "@/contracts/api";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { CoreError } from "@/core/errors";
import { TaskThread } from "@/engine/node/taskThread";
import { LITTLE_BYTES, parseBody } from "../body";
import { db, type Sql } from "../db";
import { AppError, type AppErrorCode } from "../errors";
import { getPicture } from "../pictures/pictures";
import { addPrint, appendRevision, getRevision, isLargePlan } from "./prints";

// Plans of thousands of strokes are taken apart and put together in a thread of their own: the server's answers all others meanwhile.

/** A request that carries a plan, its body as it came; or one that asks for a plan of a history, as it is or as JSON. */
export type PlanTask =
  | { kind: "append"; printId: string; body: Uint8Array<ArrayBuffer> }
  | { kind: "add"; pictureId: string; body: Uint8Array<ArrayBuffer> }
  | { kind: "read" | "read-json"; printId: string; revisionId: string };
type PlanResult = PrintSummary | Revision | Uint8Array<ArrayBuffer> | undefined;

/** Does it in this thread. Errors: AppError; CoreError `bad_plan`. */
export async function doPlanTask(sql: Sql, task: PlanTask): Promise<PlanResult> {
  switch (task.kind) {
    case "append":
      await appendRevision(sql, task.printId, parseBody(task.body, NewRevision));
      return undefined;
    case "add":
      return addFrom(sql, task.pictureId, parseBody(task.body, NewPrint));
    case "read":
      return getRevision(sql, task.printId, task.revisionId);
    case "read-json":
      return new TextEncoder().encode(JSON.stringify(await getRevision(sql, task.printId, task.revisionId)));
  }
}

async function addFrom(sql: Sql, pictureId: string, { name, plan }: NewPrint): Promise<PrintSummary> {
  const first = plan ?? defaultPlan((await getPicture(sql, pictureId)).facts.format);
  return addPrint(sql, pictureId, first, name);
}

/** Adds an edit to a print's history from the body of a request. Errors: as above. */
export async function appendFrom(printId: string, body: Uint8Array<ArrayBuffer>): Promise<void> {
  await doTask({ kind: "append", printId, body }, body.length > LITTLE_BYTES);
}

/** Adds a print to a picture from the body of a request. Errors: as above. */
export async function addPrintFrom(pictureId: string, body: Uint8Array<ArrayBuffer>): Promise<PrintSummary> {
  return (await doTask({ kind: "add", pictureId, body }, body.length > LITTLE_BYTES)) as PrintSummary;
}

/** One revision with its plan. Errors: AppError `not_found`. */
export async function readRevision(printId: string, revisionId: string): Promise<Revision> {
  return (await doTask({ kind: "read", printId, revisionId }, await isLargePlan(db(), printId, revisionId))) as Revision;
}

/** The same as JSON. */
export async function readRevisionJson(printId: string, revisionId: string): Promise<Uint8Array<ArrayBuffer>> {
  return (await doTask(
    { kind: "read-json", printId, revisionId },
    await isLargePlan(db(), printId, revisionId),
  )) as Uint8Array<ArrayBuffer>;
}

const kept = globalThis as unknown as { nigrographePlanThread?: TaskThread<PlanTask, PlanResult> };

/** Does it where it holds nobody up. */
function doTask(task: PlanTask, isLarge: boolean): Promise<PlanResult> {
  if (!isLarge) return doPlanTask(db(), task);
  kept.nigrographePlanThread ??= new TaskThread(join(process.cwd(), "dist", "planThread.mjs"), ({ name, code, message, details }) => {
    if (name === "AppError") return new AppError(code as AppErrorCode, message, details);
    return name === "CoreError" ? new CoreError(code as CoreError["code"], message, details) : undefined;
  });
  return kept.nigrographePlanThread.do(task, "body" in task ? { given: [task.body.buffer] } : {});
}

export async function closePlanThread(): Promise<void> {
  await kept.nigrographePlanThread?.close();
}
