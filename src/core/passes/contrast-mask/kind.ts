import { contrastMaskFields } from "./fields";
import { restOf } from "../fields";
import type { PassOf } from "../pass";
import { pairTable } from "../../kernels/pairTable";
import { SOFT_KNOTS } from "../../steps/knots";
import type { SurroundingsStep } from "../../steps/step";
import { ALL, blended, REACHES_ALL, throughReach } from "../../steps/stopsThrough";
import type { PassKind } from "../passKind";
import { contrastMaskStops } from "./contrastMask";

export const contrastMask: PassKind<"contrast-mask"> = {
  fields: contrastMaskFields,
  // A new one begins thin.
  resting: () => ({ kind: "contrast-mask", ...restOf(contrastMaskFields), edges: true }),
  leavesAll: ({ density }) => density === 0,
  curve: () => undefined,
  step,
};

function step(pass: PassOf<"contrast-mask">): SurroundingsStep {
  const { radius, edges, density } = pass.move;
  const isNormal = pass.blend === "normal";
  const stopsOf = (surrounding: number) => contrastMaskStops(surrounding, isNormal ? pass.strength * density : density);
  const most = Math.max(Math.abs(stopsOf(0)), Math.abs(stopsOf(1)));
  return {
    kind: "surroundings",
    own: undefined,
    around: [{ spread: { radius, edges: edges ? "guide" : "none" }, stops: pairTable(SOFT_KNOTS, stopsOf) }],
    through: isNormal ? throughReach(pass, most) : ALL,
    blended: blended(pass, REACHES_ALL, most),
  };
}
