import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { addHueKnot, hueCurve, hueName, LEAST_HUE_GAP, MOST_HUE_KNOTS, moveHueKnot, removeHueKnot, type HueKnot } from "./hueCurve";
import { IDENTITY3 } from "../colour/matrix3";
import { CHANNELS, LUMINANCE_WEIGHTS, setWeight, staysWithin, weightSum } from "./weights";
import { anyNumber } from "../../../tests/anyNumber";

describe("weights with the sum held", () => {
  test("the others give way in equal shares", () => {
    const set = setWeight({ red: 0.2, green: 0.7, blue: 0.1 }, "red", 0.4, true);
    expect(set.red).toBeCloseTo(0.4, 12);
    expect(set.green).toBeCloseTo(0.6, 12);
    expect(set.blue).toBeCloseTo(0, 12);
  });
  test("stay within limits and sum to 1 from any start", () => {
    const weight = anyNumber(-2, 2);
    fc.assert(
      fc.property(weight, weight, fc.constantFrom(...CHANNELS), anyNumber(-9, 9), (red, green, channel, value) => {
        fc.pre(Math.abs(1 - red - green) <= 2);
        const set = setWeight({ red, green, blue: 1 - red - green }, channel, value, true);
        expect(weightSum(set)).toBeCloseTo(1, 9);
        for (const other of CHANNELS) expect(Math.abs(set[other])).toBeLessThanOrEqual(2 + 1e-9);
      }),
      { seed: 51 },
    );
  });
  test("let go, only the one set changes", () => {
    expect(setWeight(LUMINANCE_WEIGHTS, "blue", 1.5, false)).toEqual({ ...LUMINANCE_WEIGHTS, blue: 1.5 });
  });
});

describe("the hue response", () => {
  const knots: HueKnot[] = [
    { hueDeg: 20, stops: 1 },
    { hueDeg: 100, stops: 0 },
    { hueDeg: 250, stops: -1.5 },
  ];
  const curve = hueCurve(knots);
  test("meets its knots and is the same a full turn on", () => {
    for (const { hueDeg, stops } of knots) {
      expect(curve(hueDeg)).toBeCloseTo(stops, 12);
      expect(curve(hueDeg + 360)).toBeCloseTo(stops, 12);
      expect(curve(hueDeg - 360)).toBeCloseTo(stops, 12);
    }
    expect(curve(0)).toBeCloseTo(curve(360 - 1e-9), 6);
  });
  test("never overshoots its knots", () => {
    for (let hue = 0; hue < 360; hue++) {
      expect(curve(hue)).toBeLessThanOrEqual(1);
      expect(curve(hue)).toBeGreaterThanOrEqual(-1.5);
    }
  });
  test("has no jump anywhere", () => {
    for (let hue = 0; hue < 360; hue += 0.5) expect(Math.abs(curve(hue + 0.5) - curve(hue))).toBeLessThan(0.05);
  });
  test("runs through knots unevenly apart as steeply as the mean of its two sides by Fritsch and Butland", () => {
    // 1 stop in 40 degrees, then 1 in 100: weights 2 · 100 + 40 and 100 + 2 · 40.
    const uneven = hueCurve([0, 1, 2, -1].map((stops, i) => ({ hueDeg: [0, 40, 140, 250][i]!, stops })));
    const slope = (uneven(40 + 1e-3) - uneven(40 - 1e-3)) / 2e-3;
    expect(slope).toBeCloseTo((240 + 180) / (240 * 40 + 180 * 100), 6);
  });
  test("is nothing without knots, and one knot moves all hues alike", () => {
    expect(hueCurve([])(123)).toBe(0);
    expect(hueCurve([{ hueDeg: 5, stops: 0.5 }])(200)).toBe(0.5);
  });
});

describe("knots", () => {
  test("a touched hue gets resting neighbours, so that far hues stay", () => {
    const { knots, index } = addHueKnot([], 250);
    const pulled = moveHueKnot(knots, index!, { hueDeg: 250, stops: -2 });
    const curve = hueCurve(pulled);
    expect(curve(250)).toBe(-2);
    expect(curve(20)).toBe(0);
    expect(curve(120)).toBe(0);
  });
  test("touching near a knot takes that knot", () => {
    const { knots } = addHueKnot([], 100);
    const again = addHueKnot(knots, 102);
    expect(again.knots).toEqual(knots);
    expect(again.knots[again.index!]!.hueDeg).toBe(100);
  });
  test("adding anywhere keeps order, gaps and the curve as it was", () => {
    fc.assert(
      fc.property(fc.array(anyNumber(0, 359.99), { maxLength: 30 }), (hues) => {
        let knots: HueKnot[] = [];
        for (const hue of hues) {
          const before = hueCurve(knots)(hue);
          const added = addHueKnot(knots, hue);
          if (added.index !== undefined && added.knots.length > knots.length) expect(hueCurve(added.knots)(hue)).toBeCloseTo(before, 9);
          knots = added.knots;
        }
        expect(knots.length).toBeLessThanOrEqual(MOST_HUE_KNOTS);
        for (let i = 1; i < knots.length; i++) expect(knots[i]!.hueDeg - knots[i - 1]!.hueDeg).toBeGreaterThanOrEqual(LEAST_HUE_GAP - 1e-9);
        if (knots.length > 1) expect(knots[0]!.hueDeg + 360 - knots[knots.length - 1]!.hueDeg).toBeGreaterThanOrEqual(LEAST_HUE_GAP - 1e-9);
      }),
      { seed: 52 },
    );
  });
  test("a moved knot stops short of its neighbours and at 3 stops", () => {
    const knots = [
      { hueDeg: 10, stops: 0 },
      { hueDeg: 50, stops: 0 },
    ];
    expect(moveHueKnot(knots, 0, { hueDeg: 90, stops: 9 })[0]).toEqual({ hueDeg: 50 - LEAST_HUE_GAP, stops: 3 });
    expect(removeHueKnot(knots, 0)).toEqual([knots[1]]);
  });
  test("hues have plain names", () => expect([20, 90, 140, 262, 359].map(hueName)).toEqual(["red", "ochre", "green", "blue", "pink"]));
});

test("a mix stays within black and white for certain only where no weight and no colour of the source can leave them", () => {
  const wide = [1.5, -0.4, -0.1, -0.15, 1.2, -0.05, 0.02, -0.12, 1.1] as const;
  expect(staysWithin(LUMINANCE_WEIGHTS, IDENTITY3)).toBe(true);
  expect(staysWithin(LUMINANCE_WEIGHTS, wide)).toBe(false);
  expect(staysWithin({ red: 0.5, green: 0.6, blue: 0 }, IDENTITY3)).toBe(false);
  expect(staysWithin({ red: 1.2, green: -0.2, blue: 0 }, IDENTITY3)).toBe(false);
});
