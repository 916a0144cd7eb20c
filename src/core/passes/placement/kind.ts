import type { PassOf } from "../pass";
import { actsOnAll, reachOf } from "../../steps/reach";
import { heldCurve, passingCurve, tableStep, type ZoneCurve } from "../../steps/zoneCurve";
import { LAST_ZONE } from "../../zones/zone";
import type { PassKind } from "../passKind";
import { placementAtStrength, placementCurve } from "./placementCurve";
import { isHold, RESTING_STRANDS } from "./strand";

export const placement: PassKind<"placement"> = {
  fields: {},
  resting: () => ({ kind: "placement", strands: RESTING_STRANDS.map((strand) => ({ ...strand })) }),
  leavesAll: ({ strands }) => strands.every(isHold) && strands[0]!.from === 0 && strands[strands.length - 1]!.from === LAST_ZONE,
  curve,
  step: (pass) => tableStep(curve(pass)),
};

/** One that meets the print normally goes further in its strands at a strength over 1. */
function curve(pass: PassOf<"placement">): ZoneCurve {
  const { strands } = pass.move;
  if (pass.blend !== "normal") return passingCurve(pass, placementCurve(strands));
  const placed = placementAtStrength(strands, pass.strength);
  return actsOnAll(pass) ? placed : heldCurve(placed, (zone) => zone + reachOf(pass, zone) * (placed(zone) - zone));
}
