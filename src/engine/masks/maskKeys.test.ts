import fc from "fast-check";
import { expect, test } from "vitest";
import { anyShape } from "../../../tests/anyRegion";
import type { LikenessShape } from "@/core/region/region";
import { likenessKey } from "./maskKeys";

const anyLikeness = anyShape.filter((shape): shape is LikenessShape => shape.kind === "likeness");

test("of whatever tells where a likeness lies, a change changes its key; how it meets others does not", () => {
  fc.assert(
    fc.property(anyLikeness, (shape) => {
      const key = likenessKey(shape);
      expect(likenessKey({ ...structuredClone(shape), id: "another", combine: "intersect" })).toBe(key);
      const changes: Partial<LikenessShape>[] = [
        { touched: [...shape.touched, { x: 0.1, y: 0.1 }] },
        { not: [...shape.not, { x: 0.1, y: 0.1 }] },
        { tolerance: shape.tolerance + 0.01 },
        { connected: !shape.connected },
        { edges: ({ tone: "colour", colour: "tone" } as const)[shape.edges] },
        { apart: shape.apart === "place" ? "colour" : "place" },
      ];
      for (const change of changes) expect([change, likenessKey({ ...shape, ...change }) !== key]).toEqual([change, true]);
    }),
  );
});
