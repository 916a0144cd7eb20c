import { converter, type Oklab, type Rgb } from "culori";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { luminanceToTone, toneToLuminance, toneToStops } from "./lstar";
import { apply3, invert3, multiply3, type Vector3 } from "./matrix3";
import { linearP3ToOklab, oklabPlanes, oklabToLch } from "./oklab";
import { linearP3ToCss, oklchToLinearP3 } from "./oklchToP3";
import { P3_LUMINANCE, SRGB_TO_P3 } from "./primaries";
import { SRGB_CURVE, curveTable, gammaCurve, srgbEncode, toLinear } from "./transferCurve";
import { anyNumber } from "../../../tests/anyNumber";

// Our colour maths against culori, an independent colour library.

const unit = anyNumber(0, 1);
const colour = fc.tuple(unit, unit, unit);
const toLinearP3 = (encoded: Vector3): Vector3 => apply3(SRGB_TO_P3, encoded.map((v) => toLinear(SRGB_CURVE, v)) as unknown as Vector3);

test("the luminance weights of P3 are those of the standard", () => {
  expect(P3_LUMINANCE[0]).toBeCloseTo(0.22897, 4);
  expect(P3_LUMINANCE[1]).toBeCloseTo(0.69174, 4);
  expect(P3_LUMINANCE[2]).toBeCloseTo(0.07929, 4);
  expect(P3_LUMINANCE[0] + P3_LUMINANCE[1] + P3_LUMINANCE[2]).toBeCloseTo(1, 12);
});

test("sRGB becomes P3 as the library says", () => {
  const p3 = converter("p3");
  fc.assert(
    fc.property(colour, ([r, g, b]) => {
      const expected = p3({ mode: "rgb", r, g, b } as Rgb);
      const got = toLinearP3([r, g, b]).map((v) => srgbEncode(Math.max(v, 0)));
      // The library's matrices carry 7 to 8 digits.
      expect(Math.max(Math.abs(got[0]! - expected.r), Math.abs(got[1]! - expected.g), Math.abs(got[2]! - expected.b))).toBeLessThan(2e-4);
    }),
    { seed: 41 },
  );
});

test("OKLab is as the library says", () => {
  const oklab = converter("oklab");
  fc.assert(
    fc.property(colour, ([r, g, b]) => {
      const expected = oklab({ mode: "rgb", r, g, b } as Rgb) as Oklab;
      const got = linearP3ToOklab(toLinearP3([r, g, b]));
      // The library goes through a matrix fitted for sRGB; the two published forms differ by this much.
      expect(Math.max(Math.abs(got[0] - expected.l), Math.abs(got[1] - expected.a), Math.abs(got[2] - expected.b))).toBeLessThan(1e-3);
    }),
    { seed: 42 },
  );
});

test("L* is as the library says", () => {
  const lab65 = converter("lab65");
  fc.assert(
    fc.property(unit, (grey) => {
      expect(luminanceToTone(toLinear(SRGB_CURVE, grey))).toBeCloseTo(lab65({ mode: "rgb", r: grey, g: grey, b: grey } as Rgb).l / 100, 4);
    }),
    { seed: 43 },
  );
});

test("tone and luminance undo each other", () => {
  const check = fc.property(unit, (y) => {
    expect(toneToLuminance(luminanceToTone(y))).toBeCloseTo(y, 12);
  });
  fc.assert(check, { seed: 44 });
});

test("Zone V is L* 50, Y 0.184, and 0 stops", () => {
  expect(toneToLuminance(0.5)).toBeCloseTo(0.184, 3);
  expect(toneToStops(0.5)).toBe(0);
  expect(toneToStops(0)).toBe(-Infinity);
});

test("OKLCH and back is the same colour", () => {
  fc.assert(
    fc.property(colour, ([r, g, b]) => {
      const back = oklchToLinearP3(oklabToLch(linearP3ToOklab([r, g, b])));
      expect(Math.max(...back.map((v, i) => Math.abs(v - [r, g, b][i]!)))).toBeLessThan(1e-9);
    }),
    { seed: 45 },
  );
});

describe("curves", () => {
  test("sRGB decodes and encodes to the same level at all 65,536", () => {
    curveTable(SRGB_CURVE, 65536).forEach((linear, level) => {
      if (Math.abs(srgbEncode(linear) * 65535 - level) > 0.01) throw new Error(`level ${level}`);
    });
  });
  test("a table is read linearly between its points, a gamma is a power", () => {
    expect(toLinear({ kind: "table", values: [0, 0.2, 1] }, 0.75)).toBeCloseTo(0.6, 12);
    expect(toLinear(gammaCurve(2.2), 0.5)).toBeCloseTo(0.5 ** 2.2, 12);
    expect([toLinear(SRGB_CURVE, -1), toLinear(SRGB_CURVE, 2)]).toEqual([0, 1]);
  });
});

test("a matrix times its inverse is the identity", () => {
  const product = multiply3(SRGB_TO_P3, invert3(SRGB_TO_P3));
  product.forEach((cell, i) => expect(cell).toBeCloseTo(i % 4 === 0 ? 1 : 0, 12));
});

test("OKLab of planes is OKLab of each pixel", () => {
  const planes = [0.1, 0.5, 0.9].map((part) => Float32Array.from({ length: 50 }, (_, i) => (part * (i + 1)) / 50)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const { lightness, a, b } = oklabPlanes(...planes);
  for (let i = 0; i < 50; i++) {
    const [l, greenRed, blueYellow] = linearP3ToOklab([planes[0][i]!, planes[1][i]!, planes[2][i]!]);
    expect(lightness[i]).toBeCloseTo(l, 5);
    expect(a[i]).toBeCloseTo(greenRed, 5);
    expect(b[i]).toBeCloseTo(blueYellow, 5);
  }
});

test("a colour is written for the page as its light encoded, clipped to what the display holds", () => {
  expect(linearP3ToCss([0, 1, 0.214041])).toBe("color(display-p3 0.0000 1.0000 0.5000)");
  expect(linearP3ToCss([-0.3, 1.7, 0.0001])).toBe("color(display-p3 0.0000 1.0000 0.0013)");
});
