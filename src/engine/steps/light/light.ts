import { knotsOf } from "@/core/kernels/pairTable";
import type { ColourStepHandler } from "../stepHandler";

/** Stops of light on a scene. */
export const light: ColourStepHandler<"light"> = {
  weight: 8,
  spread: ({ around }) => around?.spread,
  ready(machine, { flat, around: own }, around, place) {
    const { plane: p, padded: n, run } = machine;
    machine.view("stops").fill(flat);
    if (!own) return;
    machine.around.sample(around!, place, p.around, machine.pixels);
    run.addTable(p.stops, p.around, n, machine.tables.at(own.stops), knotsOf(own.stops));
  },
  apply(machine) {
    const { plane: p, padded: n, run } = machine;
    run.lightColour(p.red, p.green, p.blue, p.stops, n, machine.colourConstants);
  },
};
