import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { gridOf, wholeGrid } from "../spatial/grid";
import { rasterShape } from "../region/rasterShape";
import { areaReduceRows } from "../spatial/areaReduce";
import { falloffAt } from "./falloff";
import { forDabs, layStroke, layStrokes } from "./layStrokes";
import { StrokePlane } from "./strokePlane";
import { simplifyPath } from "./simplifyPath";
import { packPath, unpackPath, type PathPoint, type Stroke } from "./stroke";
import { anyNumber } from "../../../tests/anyNumber";

const size = { width: 120, height: 80 };
const grid = wholeGrid(size);
const stroke = (points: PathPoint[], changed: Partial<Stroke> = {}): Stroke => ({
  radius: 0.06,
  hardness: 0.3,
  flow: 0.3,
  pressure: "none",
  erase: false,
  path: packPath(points),
  ...changed,
});
const laid = (...strokes: Stroke[]) => {
  const plane = new Float32Array(size.width * size.height);
  layStrokes(plane, grid, strokes, ({ erase }) => (erase ? 0 : 1));
  return plane;
};
const furthest = (a: Float32Array, b: Float32Array) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);
const wave = (count: number): PathPoint[] =>
  Array.from({ length: count }, (_, i) => ({
    x: 0.2 + (0.6 * i) / (count - 1),
    y: 0.33 + 0.06 * Math.sin((6 * i) / (count - 1)),
    pressure: 1,
  }));

describe("a way as text", () => {
  test("comes back within a 30,000th of the long edge", () => {
    const coordinate = anyNumber(-0.5, 1.5);
    const point = fc.record({ x: coordinate, y: coordinate, pressure: anyNumber(0, 1) });
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 50 }), (points) => {
        const back = unpackPath(packPath(points));
        points.forEach(({ x, y, pressure }, i) => {
          expect(Math.abs(back[3 * i]! - x)).toBeLessThan(1 / 30000);
          expect(Math.abs(back[3 * i + 1]! - y)).toBeLessThan(1 / 30000);
          expect(Math.abs(back[3 * i + 2]! - pressure)).toBeLessThan(1e-5);
        });
      }),
    );
  });
  test("what is no number, or far outside, does no harm", () => {
    const [x, y, pressure] = unpackPath(packPath([{ x: NaN, y: 99, pressure: NaN }]));
    expect([x, y, pressure]).toEqual([expect.closeTo(0, 4), 1.5, 1]);
    expect(() => unpackPath("AAAA")).toThrow(expect.objectContaining({ code: "bad_path" }));
    expect(() => unpackPath("")).toThrow(expect.objectContaining({ code: "bad_path" }));
  });
  test("a way that grows keeps its beginning", () => {
    const points = wave(20);
    for (let n = 1; n < 20; n++) expect(packPath(points).startsWith(packPath(points.slice(0, n)))).toBe(true);
  });
});

describe("laying strokes", () => {
  test("the same way at 30 and at 240 events a second gives the same area within 1 %", () => {
    expect(furthest(laid(stroke(wave(31))), laid(stroke(wave(241))))).toBeLessThan(0.01);
  });
  test("strokes build up and level off, and never pass all", () => {
    const again = Array.from({ length: 40 }, () => stroke(wave(12), { flow: 0.1 }));
    let before = laid(again[0]!);
    for (const count of [2, 5, 20, 40]) {
      const now = laid(...again.slice(0, count));
      now.forEach((share, i) => expect(share >= before[i]! - 1e-6 && share <= 1).toBe(true));
      before = now;
    }
    expect(Math.max(...before)).toBeGreaterThan(0.98);
  });
  test("erasing takes away, and a flow of all leaves nothing", () => {
    const soft = laid(stroke(wave(12)), stroke(wave(12), { erase: true, flow: 0.2 }));
    expect(soft.every((share, i) => share <= laid(stroke(wave(12)))[i]!)).toBe(true);
    const hard = laid(stroke(wave(12)), stroke(wave(12), { erase: true, flow: 1, hardness: 1, radius: 0.09 }));
    expect(Math.max(...hard)).toBeLessThan(1e-6);
  });
  test("pressure weakens the flow and narrows the size, as asked", () => {
    const light = wave(12).map((point) => ({ ...point, pressure: 0.4 }));
    const sum = (plane: Float32Array) => plane.reduce((all, v) => all + v, 0);
    const full = sum(laid(stroke(light)));
    for (const pressure of ["flow", "size", "both"] as const) expect(sum(laid(stroke(light, { pressure })))).toBeLessThan(0.75 * full);
  });
  test("a stroke laid bit by bit is the stroke laid at once", () => {
    const points = wave(40);
    const plane = new StrokePlane(new Float32Array(size.width * size.height));
    let progress;
    for (let n = 1; n <= 40; n += 3) ({ progress } = layStroke(plane, grid, stroke(points.slice(0, n)), 1, progress));
    expect(furthest(plane.plane, laid(stroke(points)))).toBeLessThan(1e-6);
  });
  test("dabs stand evenly, across corners too; one point is one dab", () => {
    const places: [number, number][] = [];
    const path = unpackPath(
      packPath([
        { x: 0.1, y: 0.1, pressure: 1 },
        { x: 0.33, y: 0.1, pressure: 1 },
        { x: 0.33, y: 0.4, pressure: 1 },
      ]),
    );
    forDabs(path, { radius: 0.05, pressure: "none" }, (x, y) => places.push([x, y]));
    expect(Math.abs(places.length - 54)).toBeLessThanOrEqual(1);
    places.slice(1).forEach(([x, y], i) => {
      const [px, py] = places[i]!;
      expect(Math.abs(x - px) + Math.abs(y - py)).toBeCloseTo(0.01, 4); // along the two legs
    });
    let one = 0;
    forDabs(path.slice(0, 3), { radius: 0.05, pressure: "none" }, () => one++);
    expect(one).toBe(1);
  });
  test("a stroke far outside, and one that leaves and comes back, do no harm", () => {
    expect(Math.max(...laid(stroke([{ x: 1.45, y: 1.4, pressure: 1 }])))).toBe(0);
    const leaving = stroke([
      { x: 0.5, y: 0.3, pressure: 1 },
      { x: 1.4, y: 0.3, pressure: 1 },
      { x: 0.6, y: 0.5, pressure: 1 },
    ]);
    expect(Math.max(...laid(leaving))).toBeGreaterThan(0.5);
  });
  test("a hair-thin brush draws a line without holes", () => {
    const thin = laid(stroke(wave(30), { radius: 0.001, flow: 1, hardness: 1 }));
    for (let x = 30; x < 90; x++) {
      let most = 0;
      for (let y = 0; y < size.height; y++) most = Math.max(most, thin[y * size.width + x]!);
      expect(most).toBeGreaterThan(0.02);
    }
  });
});

describe("dabs at any size and pressure", () => {
  const line = (pressure: number, y = 0.3): PathPoint[] => [0.1, 0.9].map((x) => ({ x, y, pressure }));
  const on = (width: number, strokes: Stroke[], height = Math.round(0.6 * width)) => {
    const plane = new Float32Array(width * height);
    layStrokes(plane, wholeGrid({ width, height }), strokes, ({ erase }) => (erase ? 0 : 1));
    return plane;
  };

  test("pressed thin, a stroke is the thin stroke, without beads", () => {
    const pressed = laid(stroke(line(0.1), { radius: 0.3, pressure: "size" }));
    expect(furthest(pressed, laid(stroke(line(1), { radius: 0.03 })))).toBeLessThan(5e-3);
    const row = on(1000, [stroke(line(0.1), { radius: 0.3, pressure: "size", flow: 0.1 })], 600).subarray(
      300 * 1000 + 200,
      300 * 1000 + 800,
    );
    expect(Math.max(...row) / Math.min(...row)).toBeLessThan(1.02);
  });
  test("a pen that hardly presses still comes to an end", () => {
    let dabs = 0;
    forDabs(unpackPath(packPath(line(0))), { radius: 0.01, pressure: "both" }, () => dabs++);
    expect(dabs).toBeGreaterThan(400);
    expect(dabs).toBeLessThan(30_000);
  });
  test("a broad dab falls off without steps: levels of 16 bits follow one another", () => {
    const [W, R] = [4000, 0.4];
    const plane = new Float32Array(W);
    layStrokes(
      plane,
      gridOf({ width: W, height: 1 }, 0, 1000, { width: W, height: 2000 }),
      [stroke([{ x: 0.5, y: 0.25, pressure: 1 }], { radius: R, hardness: 0, flow: 1 })],
      () => 1,
    );
    const [middle, down] = unpackPath(packPath([{ x: 0.5, y: 0.25, pressure: 1 }]));
    let [flat, longest] = [0, 0];
    for (let x = 2100; x < 3500; x++) {
      const exact = falloffAt(Math.hypot(x + 0.5 - W * middle!, 1000.5 - W * down!) / (R * W), 0);
      expect(Math.abs(plane[x]! - exact)).toBeLessThan(0.3 / 65535);
      flat = Math.round(65535 * plane[x]!) === Math.round(65535 * plane[x - 1]!) ? flat + 1 : 0;
      longest = Math.max(longest, flat);
    }
    expect(longest).toBeLessThan(3);
  });

  const wavy = (y: number, tilt = 0.2): PathPoint[] =>
    Array.from({ length: 30 }, (_, i) => ({ x: 0.1 + 0.027 * i, y: y + tilt * 0.02 * i + 0.03 * Math.sin(i / 3), pressure: 1 }));
  const hatching = Array.from({ length: 12 }, (_, k) => stroke(wavy(0.1 + 0.03 * k), { radius: 0.006, hardness: 0.9, flow: 0.5 }));
  test.each([
    ["a hard stroke", [stroke(wavy(0.25), { radius: 0.04, hardness: 1, flow: 1 })]],
    ["a hard, weak stroke", [stroke(wavy(0.25), { radius: 0.04, hardness: 1, flow: 0.05 })]],
    ["hatching, partly erased", [...hatching, stroke(wavy(0.2, 1), { radius: 0.02, hardness: 1, flow: 0.7, erase: true })]],
    ["a thin stroke", [stroke(wavy(0.25), { radius: 0.0012, hardness: 0.5, flow: 0.6 })]],
    [
      "thin strokes laid over a soft one",
      [stroke(wavy(0.22), { radius: 0.08, hardness: 0 }), ...hatching.slice(0, 4).map((h) => ({ ...h, radius: 0.0008 }))],
    ],
  ] as [string, Stroke[]][])("%s: a quarter of the size is the mean of 16 pixels", (_, strokes) => {
    const [large, small] = [wholeGrid({ width: 1280, height: 768 }), wholeGrid({ width: 320, height: 192 })];
    const reduced = areaReduceRows(on(1280, strokes), 0, large, small, 0, 192);
    const differences = [...on(320, strokes)].map((share, i) => Math.abs(share - reduced[i]!)).sort((a, b) => a - b);
    // A twentieth of a share is a hundredth in tone for a pass of two zones.
    expect(differences.filter((d) => d > 0.05).length / differences.length).toBeLessThan(0.001);
    expect(differences.at(-1)).toBeLessThan(0.15);
  });
  test("a hair-thin stroke lays on as much in all at any size", () => {
    const sum = (width: number) =>
      on(width, [stroke(wavy(0.25), { radius: 0.0003, flow: 0.5 })]).reduce((all, v) => all + v, 0) / width ** 2;
    const most = sum(5120);
    for (const width of [640, 1280, 2560]) expect(Math.abs(sum(width) / most - 1)).toBeLessThan(0.05);
  });
  test("a stroke along the border goes on beyond it; farther inside it ends as anywhere", () => {
    const along = (y: number) => on(300, [stroke(line(1, y), { radius: 0.08, hardness: 0, flow: 0.1 })], 200);
    const near = along(0.03);
    for (let x = 60; x < 240; x++) expect(near[x]! / near[9 * 300 + x]!).toBeCloseTo(1, 2);
    const inside = along(0.1);
    for (let x = 60; x < 240; x++) expect(inside[x]).toBe(0);
    // Moved since it was laid, it is told by where it lies now.
    const moved = rasterShape(
      {
        id: "b",
        combine: "add",
        kind: "brush",
        beneath: true,
        x: 0,
        y: -0.27,
        strokes: [stroke(line(1), { radius: 0.08, hardness: 0, flow: 0.1 })],
      },
      wholeGrid({ width: 300, height: 200 }),
    );
    expect(furthest(moved, near)).toBeLessThan(2e-3);
  });
});

test("a simplified way stays within its tolerance and keeps its ends", () => {
  const points = wave(400);
  const few = simplifyPath(points, 0.0005);
  expect(few.length).toBeLessThan(60);
  expect([few[0], few.at(-1)]).toEqual([points[0], points.at(-1)]);
  expect(furthest(laid(stroke(few)), laid(stroke(points)))).toBeLessThan(0.03);
  expect(simplifyPath(points.slice(0, 2), 1)).toEqual(points.slice(0, 2));
});
