import { db } from "@/server/db";
import { queueOver } from "@/server/exports/boss";
import { startExportWorker } from "@/server/exports/exportWorker";
import { settings } from "@/server/settings";

// A process that takes exports from the queue. Any number of them, on any machine that reaches the database.
const sql = db();
const boss = queueOver(sql);
await boss.start();
const worker = await startExportWorker(sql, boss, {
  threadFile: new URL("./renderThread.mjs", import.meta.url),
  threads: settings().threads,
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
