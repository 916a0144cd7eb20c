import { PERCENT } from "../../text/written";
import type { Fields } from "../fields";
import { MOST_SATURATION, type SeparationMove } from "./move";

export const separationFields: Fields<SeparationMove> = {
  saturation: {
    about: "Times the chroma of all colours",
    label: "Saturation",
    least: 0,
    most: MOST_SATURATION,
    rest: 1,
    step: 0.01,
    written: PERCENT,
  },
};
