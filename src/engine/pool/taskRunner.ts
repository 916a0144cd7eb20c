import type { BandMachine } from "../machine/bandMachine";
import { TASKS, type Band, type TaskName, type Tasks } from "../tasks/tasks";

/** Whoever does work on bands. */
export interface TaskRunner {
  /** Does work on some bands, which are done when it returns. Tasks in the machine given. */
  perform<K extends TaskName>(machine: BandMachine, name: K, job: Tasks[K], bands: readonly Band[]): void;
}

/** One that has no helpers. */
export const INLINE: TaskRunner = {
  perform(machine, name, job, bands) {
    const { begin, perform } = TASKS[name];
    begin?.(machine, job);
    for (const band of bands) perform(machine, job, band);
  },
};
