import { formatGrade } from "@/core/passes/contrast/contrastCurve";
import { formatZone } from "@/core/zones/zone";
import { withMove } from "../../state/inPlan";
import type { PassFace } from "../passFace";
import { ContrastPart } from "./ContrastPart";
import { Pivot } from "./Pivot";

export const contrast: PassFace<"contrast"> = {
  name: "Contrast",
  purpose: "Steeper or flatter around a zone; true black and white",
  words: ({ grade }) => `Grade ${formatGrade(grade)}`,
  Panel: ContrastPart,
  OnScale: ({ move, x }) => <Pivot zone={move.around} x={x} />,
  pressScale(store, { pass, move }, around) {
    store.getState().adjust((now) => withMove(now, pass.id, { ...move, around }));
    store.getState().commit(`Contrast around ${formatZone(around)} in ${pass.name}`);
  },
};
