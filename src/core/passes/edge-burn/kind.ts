import { restOf } from "../fields";
import { edgeBurnFields } from "./fields";
import type { PlacedStops } from "../../steps/placedStops";
import type { PassOf } from "../pass";
import type { StopsStep } from "../../steps/step";
import { ALL, blended, REACHES_ALL, throughReach } from "../../steps/stopsThrough";
import type { PassKind } from "../passKind";
import type { EdgeBurnSettings } from "./edgeBurn";

export const edgeBurn: PassKind<"edge-burn"> = {
  fields: edgeBurnFields,
  // A new one begins faint.
  resting: () => ({ kind: "edge-burn", ...restOf(edgeBurnFields), onPaper: true }),
  leavesAll: ({ stops }) => stops === 0,
  curve: () => undefined,
  step,
  placed,
};

function placed(settings: EdgeBurnSettings): PlacedStops {
  return { by: "borders", settings };
}

function step(pass: PassOf<"edge-burn">): StopsStep {
  const { move } = pass;
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  return {
    kind: "stops",
    placed: placed(move),
    gain,
    flat: 0,
    byTone: undefined,
    onPaper: move.onPaper,
    through: isNormal ? throughReach(pass, gain * Math.abs(move.stops), move.onPaper) : ALL,
    blended: blended(pass, { ...REACHES_ALL, onPaper: move.onPaper }, Math.abs(move.stops)),
  };
}
