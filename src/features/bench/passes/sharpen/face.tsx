import { formatPercent } from "@/core/text/written";
import type { PassFace } from "../passFace";
import { SharpenPart } from "./SharpenPart";

export const sharpen: PassFace<"sharpen"> = {
  name: "Sharpen",
  purpose: "Raise fine contours, without rims and without grain",
  words: ({ amount }) => `Contours ${formatPercent(amount)}`,
  Panel: SharpenPart,
  spreads: "Sharpening moves each place by what lies close around it, so one tone may go to several.",
};
