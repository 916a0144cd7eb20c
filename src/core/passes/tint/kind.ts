import { pairTable } from "../../kernels/pairTable";
import { SOFT_KNOTS } from "../../steps/knots";
import { LAST_ZONE } from "../../zones/zone";
import type { ChromaKind } from "../passKind";
import { tintLine } from "./tintLine";

export const tint: ChromaKind<"tint"> = {
  fields: {},
  // A new one begins warm and faint.
  resting: () => ({
    kind: "tint",
    points: [
      { zone: 2, hueDeg: 70, chroma: 0.03 },
      { zone: 8, hueDeg: 70, chroma: 0.03 },
    ],
    replaces: false,
  }),
  leavesAll: ({ points, replaces }) => !replaces && points.every(({ chroma }) => chroma === 0),
  lays: ({ points, replaces }) => {
    const line = tintLine(points);
    const table = (name: "a" | "b") => pairTable(SOFT_KNOTS, (tone) => line(tone * LAST_ZONE)[name]);
    return { by: "tone", a: table("a"), b: table("b"), replaces };
  },
};
