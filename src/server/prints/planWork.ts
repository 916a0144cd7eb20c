import { join } from "node:path";
import { NewPrint, NewRevision, type PrintSummary } from "@/contracts/api";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { CoreError } from "@/core/errors";
import { TaskThread } from "@/engine/node/taskThread";
import { LITTLE_BYTES, parseBody } from "../body";
import { db, type Sql } from "../db";
import { AppError, type AppErrorCode } from "../errors";
import { getPicture } from "../pictures/pictures";
import { addPrint, appendRevision } from "./prints";

// Plans of thousands of strokes are taken apart in a thread of their own: the server's answers all others meanwhile.

/** A request that carries a plan, its body as it came. */
export type PlanTask =
  { kind: "append"; printId: string; body: Uint8Array<ArrayBuffer> } | { kind: "add"; pictureId: string; body: Uint8Array<ArrayBuffer> };

/** Does it in this thread. Errors: AppError; CoreError `bad_plan`. */
export async function doPlanTask(sql: Sql, task: PlanTask): Promise<PrintSummary | undefined> {
  if (task.kind === "append") {
    await appendRevision(sql, task.printId, parseBody(task.body, NewRevision));
    return undefined;
  }
  const { name, plan } = parseBody(task.body, NewPrint);
  const first = plan ?? defaultPlan((await getPicture(sql, task.pictureId)).facts.format);
  return addPrint(sql, task.pictureId, first, name);
}

const kept = globalThis as unknown as { nigrographePlanThread?: TaskThread<PlanTask, PrintSummary | undefined> };

/** Does it where it holds nobody up. Errors: as above. */
export function planWork(task: PlanTask): Promise<PrintSummary | undefined> {
  if (task.body.length <= LITTLE_BYTES) return doPlanTask(db(), task);
  kept.nigrographePlanThread ??= new TaskThread(join(process.cwd(), "dist", "planThread.mjs"), ({ name, code, message, details }) => {
    if (name === "AppError") return new AppError(code as AppErrorCode, message, details);
    return name === "CoreError" ? new CoreError(code as CoreError["code"], message, details) : undefined;
  });
  return kept.nigrographePlanThread.do(task, [task.body.buffer]);
}

export async function closePlanThread(): Promise<void> {
  await kept.nigrographePlanThread?.close();
}
