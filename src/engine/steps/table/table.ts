import { knotsOf } from "@/core/kernels/pairTable";
import type { StepHandler } from "../stepHandler";

/** What is added to a tone, read from a table. */
export const table: StepHandler<"table"> = {
  weight: 1,
  apply({ plane: { tone, mask }, padded: n, run, tables }, { table: own }, { byMask }) {
    if (byMask) run.addLookedUpBy(tone, mask, tone, n, tables.at(own), knotsOf(own));
    else run.addLookedUp(tone, tone, n, tables.at(own), knotsOf(own));
  },
  // A mixture of what the gate leaves in order and what is in order without it is in order.
  applyBoth(machine, { table: own }, { table: free }, added, first) {
    const { plane, padded: n, run, tables } = machine;
    const { tone, mask, stops } = plane;
    machine.view("stops").fill(0);
    run.addTableBy(stops, mask, tone, n, tables.at(own), knotsOf(own));
    machine.putNext("mask", added, first);
    run.addTableBy(stops, mask, tone, n, tables.at(free), knotsOf(free));
    run.add(tone, stops, tone, n);
  },
};
