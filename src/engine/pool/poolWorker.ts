import { BandMachine } from "../machine/bandMachine";
import { FUSED_KNOTS } from "../machine/fuseTables";
import { DONE, FAILED, FULL, Slots } from "./slots";
import { TASKS, type TaskName, type Tasks } from "../tasks/tasks";

/** Task to help with: the job once for each slot a helper looks after, its planes being in that slot. */
export interface Help<K extends TaskName = TaskName> {
  work: number;
  name: K;
  shared: SharedArrayBuffer;
  slots: readonly { slot: number; job: Tasks[K] }[];
  /** Pixels of the largest band. */
  capacity: number;
}

/** Whoever waits is woken; this is for a thread that handed in work and is gone. */
const LOOK_AGAIN_MS = 200;

/** Helps with one work after the other, in a machine of its own. */
export class PoolWorker {
  #machine: BandMachine | undefined;

  /** Does what bands are handed in, until the work is over. */
  help<K extends TaskName>({ work, name, shared, slots, capacity }: Help<K>): void {
    const { begin, perform } = TASKS[name];
    if (!this.#machine || this.#machine.capacity < capacity) this.#machine = new BandMachine(capacity, FUSED_KNOTS);
    const machine = this.#machine;
    const handed = new Slots(shared);
    let hasBegun = false;
    for (let i = 0; ; i = (i + 1) % slots.length) {
      const { slot, job } = slots[i]!;
      for (let state = handed.state(slot, work); state !== FULL; state = handed.state(slot, work)) {
        if (state === undefined) return;
        handed.waitForChange(slot, work, state, LOOK_AGAIN_MS);
      }
      if (!handed.claim(slot, work)) continue;
      try {
        if (!hasBegun) begin?.(machine, job);
        hasBegun = true;
        const { pixels, y, rows } = handed.band(slot);
        perform(machine, job, { first: 0, end: pixels, y, rows });
        handed.finish(slot, work, DONE);
      } catch {
        handed.finish(slot, work, FAILED); // whoever handed it in does it again, and meets what is wrong
      }
    }
  }
}
