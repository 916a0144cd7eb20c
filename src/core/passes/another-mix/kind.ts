import { hueTableOf } from "../../mix/mixLook";
import { LUMINANCE_WEIGHTS } from "../../mix/weights";
import { reachTable } from "../../steps/reach";
import type { PassKind } from "../passKind";

export const anotherMix: PassKind<"another-mix"> = {
  fields: {},
  resting: () => ({ kind: "another-mix", weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] }),
  // It puts what it mixes in the place of all that was made of the picture before.
  leavesAll: () => false,
  curve: () => undefined,
  mix: {
    of: (move) => move,
    with: (move, change) => ({ ...move, ...change }),
  },
  step: (pass) => ({
    kind: "mixed",
    mix: { weights: pass.move.weights, hueTable: hueTableOf(pass.move) },
    mode: pass.blend,
    strength: pass.strength,
    share: reachTable(pass),
  }),
};
