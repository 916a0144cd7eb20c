import { ALONE, type Crew } from "../crew/crew";
import { SharedCrew, type HelpingThread } from "../crew/sharedCrew";

/** More would wait for the memory, and for the one that hands bands out. */
const MOST_HELPERS = 3;

/** Helpers for the cores the machine has besides the one this runs on; none where memory cannot be shared. */
export function startCrew(): Crew {
  const count = Math.min(navigator.hardwareConcurrency - 1, MOST_HELPERS);
  if (!crossOriginIsolated || count < 1) return ALONE;
  const crew: SharedCrew = new SharedCrew(Array.from({ length: count }, () => startThread((thread) => crew.lose(thread))));
  return crew;
}

function startThread(onLost: (thread: HelpingThread) => void): HelpingThread {
  const worker = new Worker(new URL("./bandHelper.ts", import.meta.url), { type: "module" });
  const thread: HelpingThread = { send: (help) => worker.postMessage(help), stop: () => worker.terminate() };
  worker.onerror = () => onLost(thread);
  return thread;
}
