import { expect, test } from "vitest";
import { planeAreas, planeLines } from "./planeLines";

const size = { width: 8, height: 6 };
const shown = { width: 80, height: 60 };
const planeOf = (value: (x: number, y: number) => number) => ({
  ...size,
  plane: Float32Array.from({ length: 48 }, (_, i) => value(i % 8, Math.floor(i / 8))),
});
const points = (path: string) => [...path.matchAll(/(-?[\d.]+),(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
const isOnBorder = ([x, y]: number[]) => x === 0 || y === 0 || x === 80 || y === 60;

test("a line crosses the picture from border to border and does not run along them; the area's outline does", () => {
  const right = planeOf((x) => (x > 3 ? 1 : 0));
  const line = points(planeLines(right, [0.5], shown)[0]!);
  expect(line.filter(isOnBorder)).toHaveLength(2);
  for (const point of line) expect(Math.abs(point[0]! - 40)).toBeLessThanOrEqual(isOnBorder(point) ? 5 : 1e-6);
  expect(points(planeAreas(right, [0.5], shown)[0]!).filter(isOnBorder).length).toBeGreaterThan(10);
});

test("where all is above a value there is no line, and round an island inside it closes", () => {
  const island = planeOf((x, y) => (x > 2 && x < 5 && y > 1 && y < 4 ? 1 : 0.2));
  const [all, round, none] = planeLines(island, [0.1, 0.5, 2], shown);
  expect([all, none]).toEqual(["", ""]);
  expect(points(round!)[0]).toEqual(points(round!).at(-1));
});
