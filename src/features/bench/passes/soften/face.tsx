import type { PassFace } from "../passFace";
import { formatSoftness, SoftenPart } from "./SoftenPart";

export const soften: PassFace<"soften"> = {
  name: "Soften",
  purpose: "From a breath of softness to a deep blur; corners in one touch",
  words: ({ radius, spreads }) => `${formatSoftness(radius)}, ${spreads === "lights" ? "lights spread" : "all softened"}`,
  Panel: SoftenPart,
  spreads: "Softening moves each place by what lies around it, so one tone may go to several.",
};
