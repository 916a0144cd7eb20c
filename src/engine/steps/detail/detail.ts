import { knotsOf } from "@/core/kernels/pairTable";
import { detailReach } from "@/core/spatial/detail";
import { inNewState } from "../../machine/grownPlane";
import { meetAbove } from "../meeting";
import type { StepHandler } from "../stepHandler";

/** What is added by how far a tone lies from those close around it. */
export const detail: StepHandler<"detail"> = {
  weight: 4,
  reach: ({ radius }, longEdge) => detailReach(radius * longEdge),
  lay: ({ radius }, layer) => inNewState(layer.differences(radius)),
  apply(machine, { added, ...meeting }, { byMask }) {
    const { plane: p, padded: n, run } = machine;
    run.lookUp(p.stops, p.above, n, machine.tables.at(added), knotsOf(added));
    run.add(p.tone, p.above, p.above, n);
    meetAbove(machine, meeting, byMask);
  },
};
