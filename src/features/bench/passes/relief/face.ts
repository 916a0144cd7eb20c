import { RELIEF_SIZES } from "@/core/passes/relief/relief";
import type { PassFace } from "../passFace";
import { SIGNED_PERCENT } from "@/core/text/written";
import { ReliefPart } from "./ReliefPart";

export const relief: PassFace<"relief"> = {
  name: "Relief",
  purpose: "Bring out detail by its size, or lay mist over it",
  words: (move) =>
    RELIEF_SIZES.filter(({ name }) => move[name] !== 0)
      .map(({ name }) => `${name} ${SIGNED_PERCENT.format(move[name])}`)
      .join(", ") || "Flat as it is",
  Panel: ReliefPart,
  spreads: "Relief moves each place by what lies around it, so one tone may go to several.",
};
