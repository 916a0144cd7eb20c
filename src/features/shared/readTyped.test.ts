import { formatPercent, parsePercent } from "@/core/text/written";
import fc from "fast-check";
import { expect, test } from "vitest";
import { formatZone, parseStops, parseZone } from "@/core/zones/zone";
import { readTyped } from "./readTyped";

const strength = { min: 0, max: 2, rest: 1, format: formatPercent, parse: parsePercent };
const limit = { min: 0, max: 3, rest: 3, format: (v: number) => (v >= 3 ? "no limit" : `${v}`), parse: parseStops };
/** A size read through a root, as a brush's is. */
const size = {
  min: 0.05,
  max: 0.7,
  rest: 0.2,
  format: (v: number) => `${(100 * v * v).toFixed(1)} %`,
  parse: (text: string) => Math.sqrt(parsePercent(text) ?? Number.NaN),
};

test("figures as they are shown, with a comma, a sign or without a unit, are taken and kept within the range", () => {
  for (const [text, value] of [
    ["40", 0.4],
    ["40 %", 0.4],
    ["12,5%", 0.125],
    ["+17", 0.17],
    ["1000", 2],
    ["−5", 0],
    ["-5", 0],
  ] as const)
    expect(readTyped(text, strength)).toEqual({ value });
  expect(readTyped("VII½", { min: 0, max: 10, rest: 5, format: formatZone, parse: parseZone })).toEqual({ value: 7.5 });
  expect(readTyped("2/3", limit)).toEqual({ value: 2 / 3 });
});

test("a word it is shown by can be typed back", () => {
  expect(readTyped("No limit ", limit)).toEqual({ value: 3 });
  const steady = { min: 0, max: 0.05, rest: 0, format: (v: number) => (v === 0 ? "off" : formatPercent(v)), parse: parsePercent };
  expect(readTyped("OFF", steady)).toEqual({ value: 0 });
});

test("what means nothing says what is wanted", () => {
  for (const text of ["", "  ", "often", "1e999", "NaN", "--3"])
    expect(readTyped(text, strength)).toEqual({ wanted: "Wanted is 0 % to 200 %." });
  expect(readTyped("-5", size)).toEqual({ wanted: "Wanted is 0.3 % to 49.0 %." });
});

test("whatever is typed, a value is finite and within the range", () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.double().map(String)), fc.constantFrom(strength, limit, size), (text, field) => {
      const read = readTyped(text, field);
      if ("value" in read) expect(read.value >= field.min && read.value <= field.max).toBe(true);
      else expect(read.wanted).toContain("Wanted is");
    }),
    { seed: 181, numRuns: 500 },
  );
});
