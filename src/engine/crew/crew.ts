import type { BandMachine } from "../machine/bandMachine";
import { WORKS, type Band, type WorkName, type Works } from "./works";

/** Whoever does work on bands. */
export interface Crew {
  /** Does work on some bands, which are done when it returns. Works in the machine given. */
  perform<K extends WorkName>(machine: BandMachine, name: K, job: Works[K], bands: readonly Band[]): void;
}

/** One that has no helpers. */
export const ALONE: Crew = {
  perform(machine, name, job, bands) {
    const { begin, perform } = WORKS[name];
    begin?.(machine, job);
    for (const band of bands) perform(machine, job, band);
  },
};
