import fc from "fast-check";
import { expect, test } from "vitest";
import { atStrength } from "./atStrength";
import { anyNumber } from "../../../tests/anyNumber";

const tone = anyNumber(0, 1);
const strength = anyNumber(0, 4);

test("half way at ½, all the way at 1, as far again at 2 where there is room", () => {
  expect([0, 0.5, 1, 1.5, 2].map((s) => atStrength(0.4, 0.5, s))).toEqual([0.4, 0.45, 0.5, 0.55, 0.6].map((t) => expect.closeTo(t, 12)));
  expect(atStrength(0.6, 0.5, 2)).toBeCloseTo(0.4, 12);
});

test("beyond 1 black and white are reached only by what is there already", () => {
  fc.assert(
    fc.property(tone, tone, strength, (below, above, s) => {
      const there = atStrength(below, above, s);
      expect(there >= 0 && there <= 1).toBe(true);
      if (above > 1e-9 && above < 1 - 1e-9 && s >= 1) expect(there > 0 && there < 1).toBe(true);
      if (below === above) expect(there).toBeCloseTo(below, 12);
    }),
    { seed: 151 },
  );
});

test("more strength goes further, without a jump", () => {
  fc.assert(
    fc.property(tone, tone, strength, (below, above, s) => {
      const [now, then] = [atStrength(below, above, s), atStrength(below, above, s + 1e-6)];
      expect((then - now) * Math.sign(above - below)).toBeGreaterThanOrEqual(-1e-12);
      expect(Math.abs(then - now)).toBeLessThan(2e-6);
    }),
    { seed: 152 },
  );
});
