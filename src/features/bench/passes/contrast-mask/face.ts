import { formatPercent } from "@/core/text/written";
import type { PassFace } from "../passFace";
import { ContrastMaskPart } from "./ContrastMaskPart";

export const contrastMask: PassFace<"contrast-mask"> = {
  name: "Contrast mask",
  purpose: "Tame the large contrasts, keep the small ones",
  words: ({ density }) => `Mask ${formatPercent(density)}`,
  Panel: ContrastMaskPart,
  spreads: "A contrast mask moves each place by what lies around it, so one tone may go to several.",
};
