import { finePercent, PERCENT } from "../../text/written";
import type { Fields } from "../fields";
import type { SharpenMove } from "./move";
import { LEAST_SHARPEN_RADIUS, MOST_AMOUNT, MOST_OVERSHOOT, MOST_SHARPEN_RADIUS, MOST_THRESHOLD } from "./sharpen";

/** Of the tones from black to paper, as finely as a threshold is set. */
const TENTHS = finePercent(1);
const limit = (about: string, label: string, rest: number) =>
  ({ about, label, least: 0, most: MOST_OVERSHOOT, rest, step: 0.005, written: TENTHS }) as const;

export const sharpenFields: Fields<SharpenMove> = {
  radius: {
    about: "Standard deviation of the surroundings, in long edges",
    label: "Radius",
    least: LEAST_SHARPEN_RADIUS,
    most: MOST_SHARPEN_RADIUS,
    rest: 0.0003,
    step: 0.05,
    written: finePercent(3),
    byPower: true,
  },
  amount: {
    about: "What is added of the difference from them",
    label: "Amount",
    least: 0,
    most: MOST_AMOUNT,
    rest: 1,
    step: 0.05,
    written: PERCENT,
  },
  threshold: {
    about: "Differences below are left, in tone",
    label: "Threshold",
    least: 0,
    most: MOST_THRESHOLD,
    rest: 0.01,
    step: 0.001,
    written: TENTHS,
  },
  lighter: limit("The most a place may become lighter, in tone", "Light limit", 0.08),
  darker: limit("The most a place may become darker, in tone", "Dark limit", 0.12),
};
