import type { BandMachine } from "../machine/bandMachine";
import { colourTask, type ColourJob } from "./colourTask";
import { findTask, type Find } from "./findTask";
import { evaluateTask, type Evaluation } from "./evaluateTask";

/** A run of rows of a picture: its pixels, from the first to the one past the last, of the planes they lie in, and its rows. */
export interface Band {
  first: number;
  end: number;
  y: number;
  rows: number;
}

/**
 * What is done with bands, each by itself and on any machine: `begin` readies a machine, `perform` works on one band after the other. All
 * it reads and makes is told by the job, which can be copied to another thread: what it holds of the whole picture is in planes.
 */
export interface Task<J> {
  /** About how long a pixel takes, in times of reading a table: some is not worth telling helpers of. */
  weigh(job: J): number;
  begin?(machine: BandMachine, job: J): void;
  perform(machine: BandMachine, job: J, band: Band): void;
}

/** What can be done, and what tells it. */
export interface Tasks {
  evaluate: Evaluation;
  colour: ColourJob;
  find: Find;
}
export type TaskName = keyof Tasks;

export const TASKS: { readonly [K in TaskName]: Task<Tasks[K]> } = { evaluate: evaluateTask, colour: colourTask, find: findTask };
