import type { PassFace } from "../passFace";
import { SOFTNESS } from "@/core/passes/soften/fields";
import { SoftenPart } from "./SoftenPart";

export const soften: PassFace<"soften"> = {
  name: "Soften",
  purpose: "From a breath of softness to a deep blur; corners in one touch",
  words: ({ radius, spreads }) => `${SOFTNESS.format(radius)}, ${spreads === "lights" ? "lights spread" : "all softened"}`,
  Panel: SoftenPart,
  spreads: "Softening moves each place by what lies around it, so one tone may go to several.",
};
