import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { contrastCurve, formatGrade, gradeSteepness, type ContrastSettings } from "./contrastCurve";
import { anyNumber } from "../../../../tests/anyNumber";

const settings = (changed: Partial<ContrastSettings> = {}): ContrastSettings => ({ around: 5, grade: 2, black: 0, white: 10, ...changed });

describe("grades", () => {
  test("2 leaves all as it is, higher is steeper, 00 is the softest", () => {
    expect(gradeSteepness(2)).toBe(1);
    const all = [-1, 0, 1, 2, 3, 4, 5].map(gradeSteepness);
    expect(all).toEqual(all.toSorted((a, b) => a - b));
    expect(gradeSteepness(5)).toBeCloseTo(2.2, 6);
    const curve = contrastCurve(settings());
    for (let zone = 0; zone <= 10; zone += 0.5) expect(curve(zone)).toBeCloseTo(zone, 12);
  });
  test.each([
    [-1, "00"],
    [0, "0"],
    [2, "2"],
    [2.5, "2½"],
    [3.2, "3.2"],
    [5, "5"],
  ])("%d is written %s", (grade, text) => expect(formatGrade(grade)).toBe(text));
});

describe("the curve", () => {
  test("keeps the pivot and the ends, and has the grade's slope at the pivot", () => {
    const curve = contrastCurve(settings({ around: 4, grade: 4 }));
    expect([curve(0), curve(4), curve(10)]).toEqual([0, 4, 10]);
    const h = 1e-5;
    expect((curve(4 + h) - curve(4 - h)) / (2 * h)).toBeCloseTo(gradeSteepness(4), 3);
    expect(curve(2)).toBeLessThan(2);
    expect(curve(7)).toBeGreaterThan(7);
  });
  test("black and white points take all beyond them", () => {
    const curve = contrastCurve(settings({ black: 1, white: 9 }));
    expect([curve(0.5), curve(1), curve(9), curve(9.5)]).toEqual([0, 0, 10, 10]);
    expect(curve(5)).toBeCloseTo(5, 12);
  });
  test("is monotone on all 65,536 levels for any settings, a pivot at the very ends included", () => {
    const any = fc.record({
      around: anyNumber(0, 10),
      grade: anyNumber(-1, 5),
      black: anyNumber(0, 4.7),
      white: anyNumber(5.3, 10),
    });
    fc.assert(
      fc.property(any, (made) => {
        const curve = contrastCurve(made);
        let last = -Infinity;
        for (let level = 0; level < 65536; level++) {
          const zone = curve((10 * level) / 65535);
          if (!(zone >= last - 1e-12 && zone <= 10)) throw new Error(`level ${level}: ${last} to ${zone}`);
          last = zone;
        }
      }),
      { seed: 111, numRuns: 40, examples: [[settings({ around: 0, grade: 5 })], [settings({ around: 10, grade: 5 })]] },
    );
  });
});
