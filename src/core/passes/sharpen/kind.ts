import { sharpenFields } from "./fields";
import { restOf } from "../fields";
import { pairTable } from "../../kernels/pairTable";
import { reachTable } from "../../steps/reach";
import { TONE_KNOTS } from "../../zones/toneKnots";
import type { PassKind } from "../passKind";
import { sharpened } from "./sharpen";

export const sharpen: PassKind<"sharpen"> = {
  fields: sharpenFields,
  // A new one begins fine, and can be seen one to one.
  resting: () => ({ kind: "sharpen", ...restOf(sharpenFields) }),
  leavesAll: ({ amount, lighter, darker }) => amount === 0 || (lighter === 0 && darker === 0),
  curve: () => undefined,
  step: (pass) => ({
    kind: "detail",
    radius: pass.move.radius,
    added: pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, pass.move)),
    mode: pass.blend,
    strength: pass.strength,
    share: reachTable(pass),
  }),
};
