import { db } from "@/server/db";
import { exportJob } from "@/server/exports/exportJob";
import { EXPORT_JOB } from "@/server/exports/exports";
import { startWorker } from "@/server/jobs/worker";
import { settings } from "@/server/settings";

// A process that does jobs. Any number of them, on any machine that reaches the database.
const sql = db();
const worker = startWorker(sql, {
  [EXPORT_JOB]: exportJob({ threadFile: new URL("./renderThread.mjs", import.meta.url), threads: settings().threads }),
});
console.log("export worker: ready");

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await worker.stop();
  await sql.end({ timeout: 2 });
  process.exit(0);
}
process.on("SIGTERM", () => void stop());
process.on("SIGINT", () => void stop());
