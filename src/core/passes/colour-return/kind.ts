import type { ChromaKind } from "../passKind";

export const colourReturn: ChromaKind<"colour-return"> = {
  resting: () => ({ kind: "colour-return", saturation: 1 }),
  // At no saturation it still takes away what was laid before it.
  leavesAll: () => false,
  lays: ({ saturation }) => ({ by: "colour", saturation, replaces: true }),
};
