import { PERCENT } from "../../text/written";
import type { Fields } from "../fields";
import { MOST_RETURNED_SATURATION, type ColourReturnMove } from "./move";

export const colourReturnFields: Fields<ColourReturnMove> = {
  saturation: {
    about: "Of the picture's colour as it is mixed; 1 as it is",
    label: "Saturation",
    least: 0,
    most: MOST_RETURNED_SATURATION,
    rest: 1,
    step: 0.01,
    written: PERCENT,
  },
};
