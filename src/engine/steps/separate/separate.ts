import { knotsOf } from "@/core/kernels/pairTable";
import type { ColourStepHandler } from "../stepHandler";

/** Colours turned and scaled by their hue, and parted along a line. */
export const separate: ColourStepHandler<"separate"> = {
  weight: 16,
  apply(machine, { along, across, parting: { fromA, fromB, offset, alongA, alongB } }) {
    const { plane: p, padded: n, run, tables } = machine;
    const line = machine.numbers([fromA, fromB, offset, alongA, alongB]);
    run.separate(p.red, p.green, p.blue, n, machine.colourConstants, tables.at(along), tables.at(across), knotsOf(along), line);
  },
};
