import { describe, expect, test } from "vitest";
import { gridOf, wholeGrid } from "./grid";
import { layPicture } from "../region/layPicture";
import { packLevels } from "../region/pictureLevels";
import { areaReduceRows } from "./areaReduce";
import { layCells } from "./layCells";

const cells = { width: 40, height: 26 };
const plane = (of: (x: number, y: number) => number) =>
  Float32Array.from({ length: cells.width * cells.height }, (_, i) => of((i % cells.width) + 0.5, Math.floor(i / cells.width) + 0.5));
const large = { width: 640, height: 416 };

describe("cells read smoothly", () => {
  test("a cubic is met exactly inside, a straight plane to the very border", () => {
    const cubic = (x: number, y: number) => 0.3 + 0.02 * x - 0.001 * x * y + 0.00003 * x ** 3 - 0.00002 * y ** 3;
    const furthest = (of: (x: number, y: number) => number, margin: number) =>
      layCells(plane(of), cells, wholeGrid(large)).reduce((most, value, i) => {
        const [x, y] = [((i % 640) + 0.5) / 16, (Math.floor(i / 640) + 0.5) / 16];
        const isInside = x > margin && x < cells.width - margin && y > margin && y < cells.height - margin;
        return isInside ? Math.max(most, Math.abs(value - of(x, y))) : most;
      }, 0);
    expect(furthest(cubic, 3.5)).toBeLessThan(2e-6);
    const straight = (x: number, y: number) => 0.1 + 0.01 * x + 0.02 * y;
    expect(furthest(straight, 0)).toBeLessThan(1e-6);
  });
  test("between two cells that are alike it bends on as those beside them ask", () => {
    const valley = (x: number) => 0.001 * (x - 20) ** 2;
    layCells(plane(valley), cells, wholeGrid(large)).forEach((value, i) => {
      const x = ((i % 640) + 0.5) / 16;
      if (x > 4 && x < 36) expect(Math.abs(value - valley(x))).toBeLessThan(2e-6);
    });
  });
  test("its slope has no jump where cells meet", () => {
    const laid = layCells(
      plane((x, y) => Math.sin(x * 0.9) * Math.cos(y * 0.7)),
      cells,
      wholeGrid(large),
    );
    const row = laid.subarray(200 * 640, 201 * 640);
    const slopes = Array.from({ length: 639 }, (_, x) => row[x + 1]! - row[x]!);
    const steepest = Math.max(...slopes.map(Math.abs));
    // Over a sixteenth of a cell a slope of that wave changes by a sixteenth of its bend at the most.
    for (let x = 1; x < 639; x++) expect(Math.abs(slopes[x]! - slopes[x - 1]!)).toBeLessThan(0.08 * steepest);
  });
  test("any part is that part of the whole, to the bit, and a single cell is level", () => {
    const made = plane((x, y) => Math.sin(x) + Math.cos(2 * y));
    const whole = layCells(made, cells, wholeGrid(large));
    layCells(made, cells, gridOf({ width: 90, height: 33 }, 501, 377, large)).forEach((value, i) => {
      expect(value).toBe(whole[(377 + Math.floor(i / 90)) * 640 + 501 + (i % 90)]);
    });
    for (const value of layCells(Float32Array.of(0.4), { width: 1, height: 1 }, wholeGrid({ width: 9, height: 5 })))
      expect(value).toBeCloseTo(0.4, 6);
  });
});

describe("an imported picture", () => {
  const shape = (width: number, height: number) => ({
    id: "p",
    combine: "add" as const,
    kind: "picture" as const,
    width,
    height,
    levels: packLevels(Uint8Array.from({ length: width * height }, (_, i) => ((i * 7919) % 251 > 125 ? 255 : 0))),
  });
  test.each([
    [500, 333],
    [97, 61],
    [1, 1],
    [3, 2],
  ])("of %i by %i pixels is at a quarter of the size the mean of 16 pixels", (width, height) => {
    const [full, quarter] = [
      { width: 640, height: 416 },
      { width: 160, height: 104 },
    ];
    const reduced = areaReduceRows(layPicture(shape(width, height), wholeGrid(full)), 0, full, quarter, 0, 104);
    layPicture(shape(width, height), wholeGrid(quarter)).forEach((share, i) => expect(Math.abs(share - reduced[i]!)).toBeLessThan(1e-5));
  });
  test("meets its levels where a pixel is small, and stays within them", () => {
    const made = shape(5, 4);
    const laid = layPicture(made, wholeGrid({ width: 5000, height: 4000 }));
    const levels = Array.from(atob(made.levels), (char) => char.charCodeAt(0) / 255);
    levels.forEach((level, i) => expect(laid[(500 + 1000 * Math.floor(i / 5)) * 5000 + 500 + 1000 * (i % 5)]).toBeCloseTo(level, 2));
    expect(laid.every((share) => share >= -1e-6 && share <= 1 + 1e-6)).toBe(true);
  });
});
