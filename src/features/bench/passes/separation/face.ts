import { formatPercent } from "@/core/text/written";
import type { PassFace } from "../passFace";
import { BEFORE_THE_MIX } from "../colourWords";
import { pickParting } from "./pickParting";
import { SeparationPart } from "./SeparationPart";

export const separation: PassFace<"separation"> = {
  name: "Separation",
  purpose: "Draw colours apart that would come to one tone",
  words: ({ saturation, ranges, parting }) =>
    [
      saturation !== 1 && `saturation ${formatPercent(saturation)}`,
      ranges.length > 0 && `${ranges.length} ${ranges.length > 1 ? "hues" : "hue"}`,
      parting && parting.amount !== 0 && `two ${parting.amount > 0 ? "parted" : "brought together"}`,
    ]
      .filter(Boolean)
      .join(", ") || "As found",
  Panel: SeparationPart,
  spreads: BEFORE_THE_MIX,
  pickColour: (store, { pass, move }, tool, colour) => pickParting(store, pass, move, tool, colour),
};
