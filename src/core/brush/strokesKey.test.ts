import fc from "fast-check";
import { expect, test } from "vitest";
import { anyStroke } from "../../../tests/anyRegion";
import { strokesKey } from "./strokesKey";

const strokes = fc.array(anyStroke, { minLength: 1, maxLength: 5 });

test("strokes that were copied have the key of the first, whatever was read in between", () => {
  fc.assert(
    fc.property(strokes, strokes, (some, others) => {
      const copied = structuredClone(some);
      const keys = [strokesKey(some), strokesKey(others), strokesKey(copied)];
      expect(keys[2]).toBe(keys[0]);
      const backwards = copied.map((stroke) => Object.fromEntries(Object.entries(stroke).reverse()) as typeof stroke);
      expect(strokesKey(backwards)).toBe(keys[0]);
    }),
    { seed: 5 },
  );
});

test("each thing a stroke has is in its key, and so is their order", () => {
  const stroke = { radius: 0.1, hardness: 0.5, flow: 0.2, pressure: "flow", erase: false, path: "AAAAAAAA" } as const;
  const others = [
    { ...stroke, radius: 0.1000001 },
    { ...stroke, hardness: 0.4 },
    { ...stroke, flow: 0.3 },
    { ...stroke, pressure: "size" as const },
    { ...stroke, erase: true },
    { ...stroke, path: "AAAAAAAB" },
    { ...stroke, burns: true },
    { ...stroke, burns: false },
  ];
  const keys = [[stroke], ...others.map((other) => [other]), [stroke, stroke], [stroke, others[0]!], [others[0]!, stroke], []].map(
    strokesKey,
  );
  expect(new Set(keys).size).toBe(keys.length);
});
