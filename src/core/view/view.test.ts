import { readTable } from "../kernels/pairTable";
import { describe, expect, test } from "vitest";
import { toneToLuminance } from "../colour/lstar";
import { srgbEncode } from "../colour/transferCurve";
import { DITHER_PERIOD, ditherRow, noiseRow } from "./dither";
import { encodedLevels, lookTable } from "./toneTables";

const grey = (t: number) => 255 * srgbEncode(toneToLuminance(t));

describe("dither", () => {
  const offsets = Array.from({ length: DITHER_PERIOD }, (_, y) => [...ditherRow(y)]);
  test("has each offset once, averages to 0, and keeps the mean of a flat tone", () => {
    const all = offsets.flat();
    expect(new Set(all).size).toBe(DITHER_PERIOD ** 2);
    expect(Math.min(...all)).toBeGreaterThanOrEqual(-0.5);
    expect(Math.max(...all)).toBeLessThan(0.5);
    for (const level of [17.3, 100.71, 200.02]) {
      const mean = all.reduce((sum, offset) => sum + Math.round(level + offset), 0) / all.length;
      expect(Math.abs(mean - level)).toBeLessThanOrEqual(1 / all.length);
    }
  });
  test("has nothing coarse in it and no lattice: fine waves hold its power, and none of them much", () => {
    const powerOf = (u: number, v: number, level: number) => {
      let [re, im] = [0, 0];
      offsets.forEach((row, y) =>
        row.forEach((offset, x) => {
          const wrong = Math.round(level + offset) - level;
          const angle = (2 * Math.PI * (u * x + v * y)) / DITHER_PERIOD;
          re += wrong * Math.cos(angle);
          im += wrong * Math.sin(angle);
        }),
      );
      return (re * re + im * im) / DITHER_PERIOD ** 2;
    };
    for (const level of [0.25, 0.5, 0.8]) {
      let [coarse, fine, most] = [0, 0, 0];
      for (let u = 0; u < 32; u += 2)
        for (let v = 0; v < 32; v += 2) {
          if (u === 0 && v === 0) continue;
          const power = powerOf(u, v, level);
          if (Math.hypot(u, v) < 8) coarse = Math.max(coarse, power);
          if (Math.hypot(u, v) > 20) fine += power;
          most = Math.max(most, power);
        }
      expect(coarse).toBeLessThan(0.05 * most);
      expect(most).toBeLessThan(0.1 * fine);
    }
  });
  test("noise is the same wherever a row is asked for, averages to 0, and keeps within its amplitude", () => {
    const noise = { y: 7, amplitude: 2 };
    const row = noiseRow(noise, 5000);
    expect(noiseRow(noise, 300)).toEqual(row.slice(0, 300));
    const next = noiseRow({ ...noise, y: 8 }, 5000);
    expect(Math.abs(next.reduce((sum, v, i) => sum + v * row[i]!, 0) / 5000)).toBeLessThan(0.05); // of a variance of ⅔
    expect(Math.max(...row.map(Math.abs))).toBeLessThanOrEqual(2);
    expect(Math.abs(row.reduce((sum, v) => sum + v, 0) / 5000)).toBeLessThan(0.04);
    expect(row.reduce((sum, v) => sum + v * v, 0) / 5000).toBeCloseTo(4 / 6, 1); // a triangle's variance
  });
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
