import { colourReturnFields } from "./fields";
import { restOf } from "../fields";
import type { ChromaKind } from "../passKind";

export const colourReturn: ChromaKind<"colour-return"> = {
  fields: colourReturnFields,
  resting: () => ({ kind: "colour-return", ...restOf(colourReturnFields) }),
  // At no saturation it still takes away what was laid before it.
  leavesAll: () => false,
  lays: ({ saturation }) => ({ by: "colour", saturation, replaces: true }),
};
