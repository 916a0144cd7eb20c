import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { formatStops, formatZone, owningZone, parseStops, parseZone, zoneNumeral } from "./zone";
import { HISTOGRAM_BINS, zoneShares } from "./zoneShares";
import { anyNumber } from "../../../tests/anyNumber";

test.each([
  [0, "0"],
  [5, "V"],
  [10, "X"],
  [7.5, "VII½"],
  [4 + 1 / 3, "IV⅓"],
  [6 + 2 / 3, "VI⅔"],
  [0.25, "0¼"],
  [6.42, "VI.42"],
  [8.999, "IX"],
  [-1, "0"],
  [11, "X"],
])("%d is written %s", (zone, text) => expect(formatZone(zone)).toBe(text));

test.each([
  ["VII", 7],
  ["vii½", 7.5],
  ["7.5", 7.5],
  ["7,5", 7.5],
  ["VII 1/2", 7.5],
  ["7 1/3", 7 + 1 / 3],
  ["x", 10],
  ["0", 0],
  ["½", 0.5],
  ["VI.42", 6.42],
  [" IV⅔ ", 4 + 2 / 3],
])("“%s” is read as %d", (text, zone) => expect(parseZone(text)).toBeCloseTo(zone, 12));

test.each(["", "XI", "11", "-1", "abc", "VIIII", "7..5", "X½"])("“%s” is no place on the scale", (text) =>
  expect(parseZone(text)).toBeUndefined(),
);

test("what is written can be read again", () => {
  fc.assert(
    fc.property(anyNumber(0, 10), (zone) => {
      // Written to two digits, or as a fraction no further than ½ of that away.
      expect(Math.abs(parseZone(formatZone(zone))! - zone)).toBeLessThanOrEqual(0.0051);
    }),
    { seed: 31 },
  );
});

test.each([
  ["½", 0.5],
  ["+1⅓", 4 / 3],
  ["−2/3", -2 / 3],
  ["- 1/3", -1 / 3],
  ["1 1/3", 4 / 3],
  ["0,5", 0.5],
  ["-0.5 stops", -0.5],
  ["12/12", 1],
  ["3", 3],
  ["0", 0],
])("“%s” is read as %d stops", (text, stops) => expect(parseStops(text)).toBeCloseTo(stops, 12));

test.each(["", "+", "stop", "1/0", "1/", "a", "1..5", "½½", "--1"])("“%s” is no number of stops", (text) =>
  expect(parseStops(text)).toBeUndefined(),
);

test("stops written can be read again", () => {
  fc.assert(
    fc.property(anyNumber(-4, 4), (stops) => {
      expect(Math.abs(parseStops(formatStops(stops))! - stops)).toBeLessThanOrEqual(0.0051);
    }),
    { seed: 32 },
  );
});

test("a zone owns from half below to half above, its lower border included", () => {
  expect([0, 0.49, 0.5, 4.5, 5.49, 9.5, 10].map(owningZone)).toEqual([0, 0, 1, 5, 5, 10, 10]);
});

test("a numeral is refused outside 0–10", () => {
  expect(() => zoneNumeral(11)).toThrow(expect.objectContaining({ code: "bad_zone" }));
});

test.each([
  [0, "0"],
  [1 / 3, "+⅓"],
  [-1.5, "−1½"],
  [2, "+2"],
  [-0.3, "−0.30"],
  [-Infinity, "−∞"],
])("%d stops are written %s", (stops, text) => expect(formatStops(stops)).toBe(text));

describe("shares", () => {
  test("add up to 1 and lie in the zones that own the tones", () => {
    const counts = new Uint32Array(HISTOGRAM_BINS);
    counts[0] = 1; // black
    counts[HISTOGRAM_BINS / 2] = 2; // the middle of Zone V
    counts[HISTOGRAM_BINS - 1] = 1; // white
    const shares = zoneShares(counts);
    expect(shares[0]).toBe(0.25);
    expect(shares[5]).toBe(0.5);
    expect(shares[10]).toBe(0.25);
  });
  test("a border belongs to the zone above", () => {
    const counts = new Uint32Array(HISTOGRAM_BINS);
    counts[0.45 * HISTOGRAM_BINS] = 1; // Zone IV½
    expect(zoneShares(counts)[5]).toBe(1);
  });
  test("are 0 for a picture without pixels", () =>
    expect(zoneShares(new Uint32Array(HISTOGRAM_BINS))).toEqual(Array.from({ length: 11 }, () => 0)));
});
