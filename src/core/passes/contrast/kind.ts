import { contrastFields } from "./fields";
import { restOf } from "../fields";
import type { PassOf } from "../pass";
import { passingCurve, tableStep, type ZoneCurve } from "../../steps/zoneCurve";
import { LAST_ZONE } from "../../zones/zone";
import type { PassKind } from "../passKind";
import { contrastCurve, NORMAL_GRADE } from "./contrastCurve";

export const contrast: PassKind<"contrast"> = {
  fields: contrastFields,
  resting: () => ({ kind: "contrast", ...restOf(contrastFields) }),
  leavesAll: ({ grade, black, white }) => grade === NORMAL_GRADE && black === 0 && white === LAST_ZONE,
  curve,
  step: (pass) => tableStep(curve(pass)),
};

function curve(pass: PassOf<"contrast">): ZoneCurve {
  return passingCurve(pass, contrastCurve(pass.move));
}
