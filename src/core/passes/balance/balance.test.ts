import { describe, expect, test } from "vitest";
import { apply3, invert3, type Vector3 } from "../../colour/matrix3";
import { linearP3ToOklab } from "../../colour/oklab";
import { adaptToD65, P3_LUMINANCE, P3_TO_XYZ, XYZ_TO_P3 } from "../../colour/primaries";
import { balanceFor, balanceMatrix } from "./balance";

const light = ([r, g, b]: Vector3) => P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;
const white = (mired: number, tint = 0) => apply3(balanceMatrix({ mired, tint }), [1, 1, 1]);

describe("a balance", () => {
  test("at rest leaves every colour as it is", () => {
    const matrix = balanceMatrix({ mired: 0, tint: 0 });
    [1, 0, 0, 0, 1, 0, 0, 0, 1].forEach((cell, i) => expect(matrix[i]).toBeCloseTo(cell, 12));
  });

  test("keeps the light of neutrals, and warms towards red, cools towards blue", () => {
    for (const mired of [-90, -30, 30, 90]) {
      const made = white(mired);
      expect(light(made)).toBeCloseTo(1, 12);
      expect(Math.sign(made[0] - made[2])).toBe(Math.sign(mired));
    }
    expect(light(white(20, 40))).toBeCloseTo(1, 12);
    expect(white(0, 30)[1]).toBeLessThan(white(0, 30)[0]);
  });

  // Correlated colour temperature after McCamy (1992), which knows nothing of how the matrix is made.
  test.each([-60, -20, 40, 80])("by %d mired takes white to daylight so much warmer", (mired) => {
    const [x, y, z] = apply3(P3_TO_XYZ, white(mired));
    const [u, v] = [x / (x + y + z), y / (x + y + z)];
    const n = (u - 0.332) / (0.1858 - v);
    const kelvin = 449 * n ** 3 + 3525 * n ** 2 + 6823.3 * n + 5520.33;
    expect(1e6 / kelvin - 1e6 / 6504).toBeCloseTo(mired, -0.5);
  });

  test("tint is a filter's density in green", () => {
    const [plain, filtered] = [white(0), white(0, 30)];
    expect(Math.log10(filtered[0] / filtered[1]) - Math.log10(plain[0] / plain[1])).toBeCloseTo(0.3, 9);
  });
});

describe("the balance for something that was grey", () => {
  test.each([
    [12, -8],
    [-70, 20],
    [55, 0],
    [0, 0],
  ])("undoes %d mired and %d of tint", (mired, tint) => {
    const seen = apply3(invert3(balanceMatrix({ mired, tint })), [0.3, 0.3, 0.3]);
    const found = balanceFor(seen);
    if ("refused" in found) throw new Error(found.refused);
    expect(found.isReached).toBe(true);
    expect(found.mired).toBeCloseTo(mired, 3);
    expect(found.tint).toBeCloseTo(tint, 3);
  });

  test("goes as far as it can for a colour no light makes", () => {
    const found = balanceFor([0.05, 0.6, 0.02]);
    expect(found).toMatchObject({ isReached: false, tint: 50 });
  });

  // Chromaticities of lights, CIE 15:2018 and tables of the Planckian locus; none of them made by what is tested.
  test.each([
    [2000, 0.5267, 0.4133],
    [2400, 0.4857, 0.4147],
    [2856, 0.4476, 0.4074],
    [3500, 0.4053, 0.3907],
    [5003, 0.3457, 0.3585],
    [6504, 0.3127, 0.329],
    [10_000, 0.2788, 0.292],
    [25_000, 0.2499, 0.2548],
  ])("takes out the tinge of light of %i K in one pass, as the bench rounds it", (_, x, y) => {
    const white: Vector3 = [x / y, 1, (1 - x - y) / y];
    // As a camera balanced for daylight records it, and as daylight's grey looks when it is adapted to it.
    const recorded = apply3(XYZ_TO_P3, white).map((v) => 0.25 * v) as unknown as Vector3;
    const adapted = apply3(XYZ_TO_P3, apply3(invert3(adaptToD65(white)), apply3(P3_TO_XYZ, [0.25, 0.25, 0.25])));
    for (const seen of [recorded, adapted]) {
      const found = balanceFor(seen);
      if ("refused" in found) throw new Error(found.refused);
      expect(found.isReached).toBe(true);
      const made = apply3(balanceMatrix({ mired: Math.round(found.mired), tint: Math.round(found.tint) }), seen);
      const [, a, b] = linearP3ToOklab(made);
      expect(Math.hypot(a, b)).toBeLessThan(0.005);
    }
  });

  test("grows evenly: a mired more is a little more, from the coolest to the warmest", () => {
    const tingeOf = (mired: number) => {
      const [x, , z] = apply3(P3_TO_XYZ, apply3(balanceMatrix({ mired, tint: 0 }), [1, 1, 1]));
      return Math.log(x / z);
    };
    for (let mired = -398; mired < 149; mired++) {
      const [before, step, after] = [tingeOf(mired) - tingeOf(mired - 1), tingeOf(mired + 1) - tingeOf(mired), tingeOf(mired + 1)];
      expect(Number.isFinite(after)).toBe(true);
      expect(step).toBeGreaterThan(0.001);
      expect(step / before).toBeGreaterThan(0.6);
      expect(step / before).toBeLessThan(1.7);
    }
  });

  test("is refused where light or dark leaves no tinge", () => {
    expect(balanceFor([1, 0.9, 0.8])).toEqual({ refused: "burnt out" });
    expect(balanceFor([0.001, 0.001, 0.0005])).toEqual({ refused: "dark" });
    expect(balanceFor([0.4, 0.2, 0])).toEqual({ refused: "dark" });
  });
});
