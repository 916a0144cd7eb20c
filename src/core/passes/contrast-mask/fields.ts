import { finePercent, PERCENT } from "../../text/written";
import type { Fields } from "../fields";
import { LEAST_MASK_RADIUS, MOST_MASK_RADIUS } from "./contrastMask";
import type { ContrastMaskMove } from "./move";

export const contrastMaskFields: Fields<ContrastMaskMove> = {
  radius: {
    about: "Standard deviation of the mask's blur, as a part of the picture's long edge",
    label: "Blur",
    words: "Mask blur",
    least: LEAST_MASK_RADIUS,
    most: MOST_MASK_RADIUS,
    rest: 0.04,
    step: 0.005,
    written: finePercent(1),
  },
  density: {
    about: "Contrast of the mask in stops a stop: 0 masks nothing, 1 levels all larger than the blur",
    label: "Density",
    words: "Mask density",
    least: 0,
    most: 1,
    rest: 0.25,
    step: 0.01,
    written: PERCENT,
  },
};
