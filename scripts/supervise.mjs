// Keeps parts of the application running: a part that dies is started again, and what cannot be kept running ends with its reason.

/** Waits before a part is started again: at once, then longer and longer. */
const WAITS_MS = [0, 250, 500, 1000, 2000, 4000];
/** So many deaths within so long, and it is given up. */
const MOST_DEATHS = 10;
const WITHIN_MS = 60_000;

/**
 * Keeps one part running until `stop` is called. `start` starts it once and tells when it has ended; what it throws counts as a death.
 * `say` is told of every death and new beginning, `giveUp` the reason when there were ten within a minute.
 *
 * start: () => Promise<{ ended: Promise<string>, stop(): Promise<void> }>, `ended` with words such as "code 1" or "SIGKILL".
 */
export function supervise({ name, start, say, giveUp, within = WITHIN_MS, waits = WAITS_MS }) {
  let deaths = [];
  let running;
  let isStopping = false;
  let wake;

  const loop = (async () => {
    while (!isStopping) {
      const reason = await once();
      if (isStopping) return;
      const now = Date.now();
      deaths = [...deaths.filter((at) => now - at < within), now];
      const recent = deaths.length;
      if (recent >= MOST_DEATHS) return giveUp(`the ${name} died ${recent} times within a minute, last of ${reason}`);
      const wait = waits[Math.min(recent - 1, waits.length - 1)];
      say(`the ${name} died (${reason}): starting it again${wait ? ` in ${wait / 1000} s` : ""}`);
      await new Promise((resolve) => {
        wake = resolve;
        setTimeout(resolve, wait);
      });
    }
  })();

  async function once() {
    try {
      running = await start();
      return await running.ended;
    } catch (error) {
      return error.message;
    } finally {
      running = undefined;
    }
  }

  return {
    async stop() {
      isStopping = true;
      wake?.();
      await running?.stop();
      await loop;
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
