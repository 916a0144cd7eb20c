import { setTimeout as sleep } from "node:timers/promises";
import { CoreError } from "@/core/errors";
import type { Sql } from "../db";
import { failJob, giveJobBack, renewLease, retryJob, takeJob, type TakenJob } from "./jobs";
import { isPassing } from "./passing";

/** How jobs of one kind are done: everything up to and with `finishJob`. */
export interface JobKind {
  /** Progress is 0–1. An aborted signal means nobody wants it any more. */
  run(sql: Sql, job: TakenJob, context: { signal: AbortSignal; onProgress(part: number): void }): Promise<void>;
}

const RENEW_EVERY_MS = 250;
const LOOK_EVERY_MS = 500;
const LOOK_AFTER_ERROR_MS = 2000;

/**
 * Takes jobs of these kinds one after the other until `stop` is called, which cuts the one in hand off: its lease runs out, and another
 * takes it up.
 */
export function startWorker(sql: Sql, kinds: Readonly<Record<string, JobKind>>): { stop(): Promise<void> } {
  const stopping = new AbortController();
  const loop = (async () => {
    while (!stopping.signal.aborted) {
      try {
        const job = await takeJob(sql, Object.keys(kinds));
        if (job) await runJob(sql, job, kinds[job.kind]!, stopping.signal);
        else await pause(LOOK_EVERY_MS, stopping.signal);
      } catch (error) {
        // The database is away: it is looked for again, and what was in hand is taken up again when its lease has run out.
        console.error("worker:", (error as Error).message);
        await pause(LOOK_AFTER_ERROR_MS, stopping.signal);
      }
    }
  })();
  return {
    async stop() {
      stopping.abort();
      await loop;
    },
  };
}

/** Does one job under its lease, and reports what came of it. */
export async function runJob(sql: Sql, job: TakenJob, kind: JobKind, stopping?: AbortSignal): Promise<void> {
  const lost = new AbortController();
  let progress = 0;
  const pulse = setInterval(() => {
    renewLease(sql, job, progress).then(
      (isOurs) => isOurs || lost.abort(),
      () => {}, // gone for a moment: the lease lasts longer than that
    );
  }, RENEW_EVERY_MS);
  const signal = stopping ? AbortSignal.any([lost.signal, stopping]) : lost.signal;
  try {
    await kind.run(sql, job, { signal, onProgress: (part) => (progress = part) });
  } catch (error) {
    if (stopping?.aborted) return void (await giveJobBack(sql, job));
    if (lost.signal.aborted || (error instanceof CoreError && error.code === "cancelled")) return;
    const { message } = error as Error;
    if (isPassing(error)) await retryJob(sql, job, message);
    else await failJob(sql, job, message);
  } finally {
    clearInterval(pulse);
  }
}

function pause(ms: number, signal: AbortSignal): Promise<void> {
  return sleep(ms, undefined, { signal }).catch(() => {}); // told to stop
}
