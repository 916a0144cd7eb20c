import type { ColourKind } from "../passKind";
import { balanceMatrix } from "./balance";

export const balance: ColourKind<"balance"> = {
  resting: () => ({ kind: "balance", mired: 0, tint: 0 }),
  leavesAll: ({ mired, tint }) => mired === 0 && tint === 0,
  colour: (move) => ({ kind: "matrix", matrix: balanceMatrix(move) }),
};
