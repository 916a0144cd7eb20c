import { expect, test } from "vitest";
import { readTable } from "../kernels/reference";
import { toneToLuminance } from "../colour/lstar";
import { srgbEncode } from "../colour/transferCurve";
import { ditherRow } from "./dither";
import { encodedLevels, lookTable } from "./toneTables";

const grey = (t: number) => 255 * srgbEncode(toneToLuminance(t));

test("each of the 64 dither offsets occurs once, and they average to 0", () => {
  const offsets = Array.from({ length: 8 }, (_, y) => [...ditherRow(y)]).flat();
  expect(new Set(offsets).size).toBe(64);
  expect(offsets.reduce((sum, v) => sum + v, 0)).toBeCloseTo(0, 9);
  expect(Math.min(...offsets)).toBeGreaterThanOrEqual(-0.5);
  expect(Math.max(...offsets)).toBeLessThan(0.5);
});

test("a dithered flat tone keeps its mean within a 64th of a level", () => {
  for (const level of [17.3, 100.71, 200.02]) {
    let sum = 0;
    for (let y = 0; y < 8; y++) for (let x = 0; x < 8; x++) sum += Math.round(level + ditherRow(y)[x]!);
    expect(Math.abs(sum / 64 - level)).toBeLessThanOrEqual(1 / 64);
  }
});

test("the stepped view is flat inside a zone and changes at its border", () => {
  const table = lookTable({ kind: "stepped" });
  for (const t of [0.46, 0.5, 0.54]) expect(readTable(table, t)).toBeCloseTo(grey(0.5), 3);
  for (const t of [0.44, 0.45 - 1e-4]) expect(readTable(table, t)).toBeCloseTo(grey(0.4), 3);
  expect(readTable(table, 0.45 + 1e-4)).toBeCloseTo(grey(0.5), 3);
  expect(readTable(table, 0.02)).toBe(0);
  expect(readTable(table, 0.99)).toBeCloseTo(255, 3);
});

test("a lit zone is as it is, all else is drawn towards grey", () => {
  const table = lookTable({ kind: "zone", zone: 2 });
  expect(readTable(table, 0.2)).toBeCloseTo(grey(0.2), 1);
  expect(readTable(table, 0)).toBeGreaterThan(80);
  expect(readTable(table, 1)).toBeLessThan(200);
});

test("output levels run from 0 to the top", () => {
  const table = encodedLevels(65535);
  expect(readTable(table, 0)).toBe(0);
  expect(readTable(table, 1)).toBeCloseTo(65535, 1);
});
