import { separationFields } from "./fields";
import type { ColourKind } from "../passKind";
import { separateStep } from "./separation";

export const separation: ColourKind<"separation"> = {
  fields: separationFields,
  resting: () => ({ kind: "separation", saturation: 1, ranges: [], parting: null }),
  leavesAll: ({ saturation, ranges, parting }) =>
    saturation === 1 && ranges.every(({ turnDeg, chroma }) => turnDeg === 0 && chroma === 1) && (parting?.amount ?? 0) === 0,
  colour: separateStep,
};
