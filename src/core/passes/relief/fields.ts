import { SIGNED_PERCENT } from "../../text/written";
import type { Fields } from "../fields";
import type { ReliefMove } from "./move";
import { LEAST_RELIEF, MOST_RELIEF } from "./relief";

const amount = (detail: string, label: string) =>
  ({
    about: `What is added to ${detail} detail, as a part of what there is: -1 takes it away, 2 makes it three times as strong`,
    label,
    words: `${label} relief`,
    least: LEAST_RELIEF,
    most: MOST_RELIEF,
    rest: 0,
    step: 0.05,
    written: SIGNED_PERCENT,
  }) as const;

export const reliefFields: Fields<ReliefMove> = {
  fine: amount("fine", "Fine"),
  medium: amount("medium", "Medium"),
  broad: amount("broad", "Broad"),
};
