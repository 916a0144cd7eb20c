import { balanceFields } from "./fields";
import { restOf } from "../fields";
import type { ColourKind } from "../passKind";
import { balanceMatrix } from "./balance";

export const balance: ColourKind<"balance"> = {
  fields: balanceFields,
  resting: () => ({ kind: "balance", ...restOf(balanceFields) }),
  leavesAll: ({ mired, tint }) => mired === 0 && tint === 0,
  colour: (move) => ({ kind: "matrix", matrix: balanceMatrix(move) }),
};
