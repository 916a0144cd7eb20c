import type { LikenessShape } from "@/core/region/region";
import type { BenchStore } from "../state/benchStore";
import { adjustShape, regionName } from "./regionEdits";
import { withoutSweep, type Side, type Sweep } from "./sweeps";

export const SIDE_WORDS: Record<Side, string> = { touched: "Meant", not: "Not meant" };

/** Takes one sweep of a likeness back: a step of the history. */
export function takeBackSweep(store: BenchStore, shape: LikenessShape, sweep: Sweep): void {
  adjustShape(store, shape.id, () => withoutSweep(shape, sweep));
  store.getState().commit(`${sweep.side === "not" ? "What was not meant" : "What was touched"} taken back in ${regionName(store)}`);
}
