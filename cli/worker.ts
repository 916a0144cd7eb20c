import { db } from "@/server/db";
import { exportJob } from "@/server/exports/exportJob";
import { EXPORT_JOB } from "@/server/exports/exports";
import { startWorker } from "@/server/jobs/worker";
import { sweep } from "@/server/sweep";
import { settings } from "@/server/settings";

// A process that does jobs. Any number of them, on any machine that reaches the database.
const sql = db();
const worker = startWorker(sql, {
  [EXPORT_JOB]: exportJob({ threadFile: new URL("./renderThread.mjs", import.meta.url), threads: settings().threads }),
});
console.log("export worker: ready");

const SWEEP_EVERY_MS = 3_600_000;
const SWEEP_FIRST_MS = 60_000;
const sweepSoon = (ms: number): unknown =>
  setTimeout(() => {
    sweep(sql).then(
      (swept) => {
        const words = Object.entries(swept ?? {}).flatMap(([what, count]) =>
          count > 0 ? `${count} ${what === "saved" ? "saved placements and mixes" : what}` : [],
        );
        if (words.length > 0) console.log(`swept away: ${words.join(", ")}`);
      },
      (error: unknown) => console.error("sweep:", (error as Error).message),
    );
    sweepSoon(SWEEP_EVERY_MS);
  }, ms).unref();
sweepSoon(SWEEP_FIRST_MS);

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
