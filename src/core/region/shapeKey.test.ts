import fc from "fast-check";
import { expect, test } from "vitest";
import { anyShape } from "../../../tests/anyRegion";
import { shapeKey } from "./shapeKey";

test("of whatever a shape has but its name, a change changes its key", () => {
  fc.assert(
    fc.property(anyShape, (shape) => {
      const key = shapeKey(shape);
      expect(shapeKey({ ...structuredClone(shape), id: "another" })).toBe(key);
      for (const [field, value] of Object.entries(shape)) {
        if (field === "id" || field === "kind") continue;
        const other = Array.isArray(value)
          ? value.slice(1)
          : typeof value === "boolean"
            ? !value
            : typeof value === "number"
              ? value + 1
              : "other";
        if (Array.isArray(value) && value.length === 0) continue;
        expect([field, shapeKey({ ...shape, [field]: other } as typeof shape) !== key]).toEqual([field, true]);
      }
    }),
  );
});
