import { INLINE, type TaskRunner } from "../pool/taskRunner";
import { WorkerPool, type PoolThread } from "../pool/workerPool";

/** More would wait for the memory, and for the one that hands bands out. */
const MOST_HELPERS = 3;

/** The first frames have the cores to themselves: a helper that starts takes as long as one of them. */
const START_AFTER_MS = 1000;

/** The thread that hands bands out has a core, and the page. */
const OWN_CORES = 2;

/**
 * Helpers for the cores that a machine has besides, and one where there are no more: the page is not always busy. None where memory cannot
 * be shared.
 */
export function startPool(cores: number): TaskRunner {
  const canShare = crossOriginIsolated && typeof Worker !== "undefined"; // not every browser lets a worker start others
  if (!canShare || cores < 2) return INLINE;
  const count = Math.min(Math.max(cores - OWN_CORES, 1), MOST_HELPERS);
  const pool = new WorkerPool([]);
  setTimeout(() => {
    for (let i = 0; i < count; i++) pool.join(startThread((thread) => pool.lose(thread)));
  }, START_AFTER_MS);
  return pool;
}

function startThread(onLost: (thread: PoolThread) => void): PoolThread {
  const worker = new Worker(new URL("./poolThread.ts", import.meta.url), { type: "module", name: "bands" });
  const thread: PoolThread = { send: (help) => worker.postMessage(help), stop: () => worker.terminate() };
  worker.onerror = () => onLost(thread);
  return thread;
}
