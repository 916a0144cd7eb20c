import { describe, expect, test } from "vitest";
import { apply3, invert3, type Vector3 } from "../../colour/matrix3";
import { P3_LUMINANCE, P3_TO_XYZ } from "../../colour/primaries";
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
    const found = balanceFor([0.6, 0.2, 0.02]);
    expect(found).toMatchObject({ isReached: false, mired: -90 });
  });

  test("is refused where light or dark leaves no tinge", () => {
    expect(balanceFor([1, 0.9, 0.8])).toEqual({ refused: "burnt out" });
    expect(balanceFor([0.001, 0.001, 0.0005])).toEqual({ refused: "dark" });
    expect(balanceFor([0.4, 0.2, 0])).toEqual({ refused: "dark" });
  });
});
