import { meetAbove } from "../meeting";
import type { StepHandler } from "../stepHandler";

/** What another mix makes of the colours. */
export const mixed: StepHandler<"mixed"> = {
  weight: 4,
  reads: ({ mix }) => (mix.hueTable ? "mixed with hues" : "mixed"),
  apply(machine, { mix, ...meeting }, { byMask }) {
    machine.mixInto("above", mix);
    meetAbove(machine, meeting, byMask);
  },
};
