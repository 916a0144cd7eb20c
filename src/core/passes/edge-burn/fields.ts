import { PERCENT } from "../../text/written";
import { STOPS } from "../../zones/zone";
import { MOST_STOPS } from "../exposure/exposure";
import type { Fields } from "../fields";
import { MOST_BEGINS, MOST_SHIFT } from "./edgeBurn";
import type { EdgeBurnMove } from "./move";

const shift = (about: string, label: string) =>
  ({ about, label, least: -MOST_SHIFT, most: MOST_SHIFT, rest: 0, step: 0.01, written: PERCENT }) as const;

/** A third of a stop down, beginning a little beyond the middle. */
export const edgeBurnFields: Fields<EdgeBurnMove> = {
  stops: {
    about: "In the corners; below 0 darkens",
    label: "In the corners",
    words: "Corners",
    least: -MOST_STOPS,
    most: MOST_STOPS,
    rest: -1 / 3,
    step: 1 / 12,
    written: STOPS,
  },
  x: shift("How far its middle lies from the picture's, in long edges", "To the right"),
  y: shift("", "Down"),
  begins: {
    about: "Where it begins on the way from its middle to the border",
    label: "Begins",
    words: "Edges begin at",
    least: 0,
    most: MOST_BEGINS,
    rest: 0.3,
    step: 0.01,
    written: PERCENT,
  },
  straight: {
    about: "0 an oval, 1 straight along the borders",
    label: "Along borders",
    least: 0,
    most: 1,
    rest: 0.3,
    step: 0.01,
    written: { ...PERCENT, format: (part) => (part === 0 ? "oval" : part === 1 ? "straight" : PERCENT.format(part)) },
  },
};
