import { finePercent, parsePercent, type Written } from "../../text/written";
import type { Fields } from "../fields";
import type { SoftenMove } from "./move";
import { LEAST_SOFTEN_RADIUS, MOST_SOFTEN_RADIUS } from "./soften";

/** A part of the long edge, finer where it is small. */
export const SOFTNESS: Written = { format: (radius) => finePercent(radius < 0.01 ? 2 : 1).format(radius), parse: parsePercent };

export const softenFields: Fields<SoftenMove> = {
  radius: {
    about: "Standard deviation of the blur, in long edges",
    label: "Softness",
    least: LEAST_SOFTEN_RADIUS,
    most: MOST_SOFTEN_RADIUS,
    rest: 0.004,
    step: 0.05,
    written: SOFTNESS,
    byPower: true,
  },
};
