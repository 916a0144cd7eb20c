import type { PassFace } from "../passFace";
import { BEFORE_THE_MIX } from "../colourWords";
import { pickNeutral } from "./pickNeutral";
import { MIRED, TINGE } from "@/core/passes/balance/fields";
import { BalancePart } from "./BalancePart";

export const balance: PassFace<"balance"> = {
  name: "Balance",
  purpose: "Warm or cool the colours, or make a grey thing grey",
  words: ({ mired, tint }) =>
    [mired !== 0 && MIRED.format(mired), tint !== 0 && TINGE.format(tint)].filter(Boolean).join(", ") || "As found",
  Panel: BalancePart,
  spreads: BEFORE_THE_MIX,
  pickColour: (store, { pass }, _tool, colour) => pickNeutral(store, pass, colour),
};
