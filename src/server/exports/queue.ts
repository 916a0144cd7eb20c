import type PgBoss from "pg-boss";
import { db } from "../db";
import { EXPORT_QUEUE, queueOver } from "./boss";

const kept = globalThis as unknown as { nigrographeQueue?: Promise<PgBoss> };

/** The queue as the web process uses it: it sends and never works. */
export function exportQueue(): Promise<PgBoss> {
  kept.nigrographeQueue ??= open().catch((error: unknown) => {
    delete kept.nigrographeQueue; // the next request tries again
    throw error;
  });
  return kept.nigrographeQueue;
}

async function open(): Promise<PgBoss> {
  const boss = queueOver(db());
  await boss.start();
  await boss.createQueue(EXPORT_QUEUE);
  return boss;
}
