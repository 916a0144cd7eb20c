import { formatPercent } from "@/core/text/written";
import type { PassFace } from "../passFace";
import { ColourReturnPart } from "./ColourReturnPart";

export const colourReturn: PassFace<"colour-return"> = {
  name: "Colour return",
  purpose: "Bring back the picture's own colour, on some things or all",
  words: ({ saturation }) => `Colour ${formatPercent(saturation)}`,
  Panel: ColourReturnPart,
};
