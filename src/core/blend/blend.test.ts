import fc from "fast-check";
import { expect, test } from "vitest";
import { blend, BLEND_MODES } from "./blend";
import { anyNumber } from "../../../tests/anyNumber";

const unit = anyNumber(0, 1);

test.each([
  ["normal", 0.2],
  ["multiply", 0.08],
  ["screen", 0.52],
  ["overlay", 0.16],
  ["darken", 0.2],
  ["lighten", 0.4],
  ["color-dodge", 0.5],
  ["color-burn", 0],
  ["hard-light", 0.16],
  ["difference", 0.2],
  ["exclusion", 0.44],
] as const)("%s of 0.4 below and 0.2 above is %d", (mode, expected) => expect(blend(mode, 0.4, 0.2)).toBeCloseTo(expected, 12));

test("soft light by half grey changes nothing, lighter lifts, darker lowers", () => {
  expect(blend("soft-light", 0.3, 0.5)).toBeCloseTo(0.3, 12);
  expect(blend("soft-light", 0.3, 0.8)).toBeGreaterThan(0.3);
  expect(blend("soft-light", 0.3, 0.2)).toBeLessThan(0.3);
});

test("every mode stays within 0 and 1", () => {
  fc.assert(
    fc.property(fc.constantFrom(...BLEND_MODES), unit, unit, (mode, below, above) => {
      const laid = blend(mode, below, above);
      expect(laid).toBeGreaterThanOrEqual(-1e-12);
      expect(laid).toBeLessThanOrEqual(1 + 1e-12);
    }),
    { seed: 101 },
  );
});
