import type { BandMachine } from "../machine/bandMachine";
import { changeWork, type Change } from "./changeWork";
import { findWork, type Find } from "./findWork";
import { sweepWork, type Sweep } from "./sweepWork";

/** A run of rows of a picture: its pixels, from the first to the one past the last, of the planes they lie in, and its rows. */
export interface Band {
  first: number;
  end: number;
  y: number;
  rows: number;
}

/**
 * What is done with bands, each by itself and on any machine: `begin` readies a machine, `perform` works on one band after the other. All it reads and makes is
 * told by the job, which can be copied to another thread: what it holds of the whole picture is in strips.
 */
export interface Work<J> {
  /** About how long a pixel takes, in times of reading a table: some is not worth telling helpers of. */
  weigh(job: J): number;
  begin?(machine: BandMachine, job: J): void;
  perform(machine: BandMachine, job: J, band: Band): void;
}

/** What can be done, and what tells it. */
export interface Works {
  sweep: Sweep;
  change: Change;
  find: Find;
}
export type WorkName = keyof Works;

export const WORKS: { readonly [K in WorkName]: Work<Works[K]> } = { sweep: sweepWork, change: changeWork, find: findWork };
