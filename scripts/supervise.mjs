// Keeps parts of the application running: a part that dies is started again, and what cannot be kept running ends with its reason.

import { setTimeout as pause } from "node:timers/promises";

/** Waits before a part is started again: at once, then longer and longer. */
const WAITS_MS = [0, 250, 500, 1000, 2000, 4000];
/** So many deaths within so long, and it is given up. */
const MOST_DEATHS = 10;
const WITHIN_MS = 60_000;

/**
 * Keeps one part running until `stop` is called. It is always in one of four states: starting, running, waiting before it is started again,
 * or at its end; `stop` brings it to its end from each of them. `start` starts it once and tells when it has ended; what it throws counts
 * as a death; it gives up when its signal is aborted. `say` is told of every death and new beginning, `giveUp` the reason when there were
 * ten within a minute, or at once for one that is hopeless.
 *
 * start: (signal) => Promise<{ ended: Promise<string>, stop(): Promise<void> }>, `ended` with words such as "code 1" or "SIGKILL".
 * isDone: of what ended in this way nothing more is wanted. hopeless: why what ended in this way is not started again, undefined where it
 * is. `end` resolves when the part is at its end: true where it is done.
 */
export function supervise({
  name,
  start,
  say,
  giveUp,
  isDone = () => false,
  hopeless = () => undefined,
  within = WITHIN_MS,
  waits = WAITS_MS,
}) {
  const stopping = new AbortController();
  let running;

  async function live() {
    for (let deaths = []; ;) {
      const reason = await once();
      if (stopping.signal.aborted) return false;
      if (isDone(reason)) return true;
      const now = Date.now();
      deaths = [...deaths.filter((at) => now - at < within), now];
      const recent = deaths.length;
      const why = hopeless(reason);
      if (why !== undefined) return given(why);
      if (recent >= MOST_DEATHS) return given(`the ${name} died ${recent} times within a minute, last of ${reason}`);
      const wait = waits[Math.min(recent - 1, waits.length - 1)];
      say(`the ${name} died (${reason}): starting it again${wait ? ` in ${wait / 1000} s` : ""}`);
      await pause(wait, undefined, { signal: stopping.signal }).catch(() => {});
      if (stopping.signal.aborted) return false;
    }
  }

  function given(reason) {
    giveUp(reason);
    return false;
  }

  async function once() {
    try {
      running = await start(stopping.signal);
      if (stopping.signal.aborted) await running.stop(); // it came up just then
      return await running.ended;
    } catch (error) {
      return error.message;
    } finally {
      running = undefined;
    }
  }

  const end = live();
  return {
    end,
    async stop() {
      stopping.abort();
      await running?.stop();
      await end;
    },
  };
}

/** Ends a process politely, then less so: each signal with the time it is given. */
export async function endProcess(child, ended, steps) {
  for (const [signal, ms] of steps) {
    if (child.exitCode !== null || child.signalCode !== null) return;
    child.kill(signal);
    const timer = new Promise((resolve) => setTimeout(resolve, ms, "late").unref?.());
    if ((await Promise.race([ended, timer])) !== "late") return;
  }
  child.kill("SIGKILL");
  await ended;
}

/** How a process ended, in words. */
export function endOf(child) {
  return new Promise((resolve) =>
    child.once("exit", (code, signal) => {
      if (signal === "SIGKILL") resolve("killed, perhaps for want of memory");
      else resolve(signal ?? `code ${code}`);
    }),
  );
}
