import { knotsOf } from "@/core/kernels/pairTable";
import type { LaidChroma } from "@/core/steps/step";
import type { BandMachine } from "../../machine/bandMachine";
import { letThrough } from "../meeting";
import type { StepHandler } from "../stepHandler";

/** Colour laid on tones. */
export const chroma: StepHandler<"chroma"> = {
  weight: 4,
  keepsTones: true,
  reads: ({ laid }) => (laid.by === "colour" ? "own" : undefined),
  apply(machine, { laid, strength, share }, { byMask }) {
    const { plane: p, padded: n, run } = machine;
    letThrough(machine, strength, share, byMask);
    const scale = found(machine, laid);
    run.layChroma(p.a, p.hue, scale, p.stops, n, Number(laid.replaces));
    run.layChroma(p.b, p.fade, scale, p.stops, n, Number(laid.replaces));
  },
};

/** hue, fade → what is laid, by what is in a plane, 0 for none: looked up by tone, or the colour's own, which lies there. */
function found({ plane: p, padded: n, run, tables }: BandMachine, laid: LaidChroma): number {
  if (laid.by === "colour") {
    run.followTone(p.around, p.tone, p.above, n, laid.saturation);
    return p.above;
  }
  run.lookUp(p.tone, p.hue, n, tables.at(laid.a), knotsOf(laid.a));
  run.lookUp(p.tone, p.fade, n, tables.at(laid.b), knotsOf(laid.b));
  return 0;
}
