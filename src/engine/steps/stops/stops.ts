import { knotsOf } from "@/core/kernels/pairTable";
import { expose } from "../exposing";
import type { StepHandler } from "../stepHandler";

/** Stops given to places, flat, and by tone. */
export const stops: StepHandler<"stops"> = {
  weight: 4,
  lay: ({ placed }, layer) => layer.stops(placed),
  apply(machine, { gain, flat, through, byTone, blended, onPaper }, { isLaid, byMask }) {
    const { plane: p, padded: n, run, tables } = machine;
    if (!isLaid) machine.view("stops").fill(flat);
    else if (gain !== 1 || flat !== 0) run.scaleAdd(p.stops, n, gain, flat);
    const withTones = (scales: boolean) => {
      if (!byTone) return;
      const [at, knots] = [tables.at(byTone), knotsOf(byTone)];
      if (scales) run.addTableBy(p.stops, p.mask, p.tone, n, at, knots);
      else run.addTable(p.stops, p.tone, n, at, knots);
    };
    expose(machine, { through, blended, onPaper, byMask, withTones });
  },
};
