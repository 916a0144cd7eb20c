import { knotsOf } from "@/core/kernels/pairTable";
import { expose } from "../exposing";
import type { StepHandler } from "../stepHandler";

/** Stops by what lies around a place. */
export const surroundings: StepHandler<"surroundings"> = {
  weight: 4,
  spreads: ({ around }) => around.map(({ spread }) => spread),
  apply(machine, { own, around, through, blended }, { surroundings: gathered, place, byMask }) {
    const { plane: p, padded: n, run, tables } = machine;
    if (own) run.lookUp(p.tone, p.stops, n, tables.at(own), knotsOf(own));
    else machine.view("stops").fill(0);
    around.forEach(({ stops }, i) => {
      machine.around.sample(gathered[i]!, place, p.around, machine.pixels);
      run.addTable(p.stops, p.around, n, tables.at(stops), knotsOf(stops));
    });
    expose(machine, { through, blended, onPaper: false, byMask });
  },
};
