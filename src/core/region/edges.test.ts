import { describe, expect, test } from "vitest";
import { areaReduceRows } from "../spatial/areaReduce";
import { beyondFrame } from "./beyondFrame";
import { boundaryOf } from "./boundary";
import { smoothEdges } from "./edges";
import { gridOf, wholeGrid } from "../spatial/grid";
import { rasterShape, type DrawnShape } from "./rasterShape";
import type { OutlineShape, OvalShape } from "./region";

const feather = { inner: 0.02, outer: 0.02 };
const outline = (corners: [number, number][], edges = feather, smooth = false): OutlineShape => ({
  id: "l",
  combine: "add",
  kind: "outline",
  corners: corners.map(([x, y]) => ({ x, y, smooth })),
  ...edges,
});
const furthest = (a: Float32Array, b: Float32Array) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);
const size = { width: 300, height: 200 };
const grid = wholeGrid(size);
const at = (plane: Float32Array, x: number, y: number) => plane[y * size.width + x]!;

describe("what reaches the frame goes on beyond it", () => {
  const H = 200 / 300;
  test.each([
    [
      "along the border",
      outline([
        [0.005, 0.005],
        [0.995, 0.008],
        [0.99, 0.3],
        [0.004, 0.32],
      ]),
    ],
    [
      "drawn by a loose hand, rounded",
      outline(
        [
          [0.01, 0.01],
          [0.5, 0.004],
          [0.99, 0.012],
          [0.988, 0.3],
          [0.5, 0.33],
          [0.012, 0.3],
        ],
        feather,
        true,
      ),
    ],
    [
      "beyond it",
      outline([
        [-0.01, -0.02],
        [1.02, -0.01],
        [1.01, 0.3],
        [-0.03, 0.3],
      ]),
    ],
  ] as [string, OutlineShape][])("a sky %s is full up to its three borders", (_, shape) => {
    const plane = rasterShape(shape, grid);
    for (let x = 0; x < 300; x++) expect(at(plane, x, 0)).toBeGreaterThan(0.97);
    for (let y = 0; y < 50; y++) expect(Math.min(at(plane, 0, y), at(plane, 299, y))).toBeGreaterThan(0.97);
    expect(at(plane, 150, 120)).toBe(0);
  });
  test("an oval as near fills up to the border, one farther away fades before it", () => {
    const oval = { id: "o", combine: "add", kind: "oval", x: 0.5, y: H / 2, across: 0.3, turnDeg: 0, ...feather } as const;
    expect(at(rasterShape({ ...oval, down: H / 2 - 0.019 }, grid), 150, 0)).toBeGreaterThan(0.999);
    expect(at(rasterShape({ ...oval, down: H / 2 - 0.04 }, grid), 150, 0)).toBe(0);
  });
  test("what is softened afterwards reaches by as much more", () => {
    const sky = outline([
      [0.04, 0.04],
      [0.96, 0.04],
      [0.96, 0.3],
      [0.04, 0.3],
    ]);
    expect(at(rasterShape(sky, grid), 150, 0)).toBe(0);
    expect(at(rasterShape(sky, grid, 0.02), 150, 0)).toBe(1);
  });
  test("an edge that runs across the border stays where it is, to the border", () => {
    const plane = rasterShape(
      outline([
        [-0.1, -0.1],
        [0.4, -0.1],
        [0.4, 1],
        [-0.1, 1],
      ]),
      grid,
    );
    for (let y = 0; y < 200; y++) for (let x = 100; x < 140; x++) expect(at(plane, x, y)).toBeCloseTo(at(plane, x, 100), 6);
    // Drawn only just to the border it goes on as it was.
    const short = rasterShape(
      outline([
        [0.005, 0.004],
        [0.4, 0.006],
        [0.4, H - 0.004],
        [0.005, H - 0.005],
      ]),
      grid,
    );
    for (let y = 0; y < 200; y++) for (let x = 100; x < 140; x++) expect(Math.abs(at(short, x, y) - at(plane, x, 100))).toBeLessThan(0.01);
  });
  test("a strip along the border keeps the edge that faces the picture", () => {
    const strip = rasterShape(
      outline(
        [
          [0, 0],
          [1, 0],
          [1, 0.015],
          [0, 0.015],
        ],
        { inner: 0.005, outer: 0.02 },
      ),
      grid,
    );
    expect(at(strip, 150, 0)).toBeGreaterThan(0.9);
    expect(at(strip, 150, 12)).toBe(0);
  });
  test("dragged across, no place jumps", () => {
    let before: Float32Array | undefined;
    const step = 0.0004;
    for (let depth = 0.06; depth > -0.02; depth -= step) {
      const plane = rasterShape(
        outline([
          [0.2, depth],
          [0.8, depth + 0.003],
          [0.8, 0.4],
          [0.2, 0.4],
        ]),
        grid,
      );
      // Carried out within half its outer and a quarter of its inner edge, the contour goes four times as fast as the hand.
      if (before) expect(furthest(plane, before)).toBeLessThan((8 * step * 1.5) / 0.04);
      before = plane;
    }
  });
});

test("a hand that overruns its beginning and runs back beside it leaves no gap; a hole that was meant stays", () => {
  const sky: [number, number][] = [
    [0.012, 0.012],
    [0.4, 0.016],
    [0.988, 0.012],
    [0.988, 0.4],
    [0.012, 0.4],
    [0.012, 0.05],
    [0.02, 0.011],
    [0.1, 0.008],
    [0.25, 0.02],
    [0.3, 0.012],
  ];
  for (const edges of [feather, { inner: 0, outer: 0 }]) {
    const plane = rasterShape(outline(sky, edges), grid);
    for (let y = 12; y < 100; y++) for (let x = 12; x < 288; x++) expect(at(plane, x, y)).toBe(1);
  }
  const soft = rasterShape(outline(sky), grid);
  for (let x = 0; x < 300; x++) expect(at(soft, x, 0)).toBeGreaterThan(0.93);
  // Round the outside one way, round the inside the other.
  const ring: [number, number][] = [
    [0.1, 0.1],
    [0.9, 0.1],
    [0.9, 0.6],
    [0.1, 0.6],
    [0.1, 0.1],
    [0.4, 0.25],
    [0.4, 0.45],
    [0.6, 0.45],
    [0.6, 0.25],
    [0.4, 0.25],
  ];
  const holed = rasterShape(outline(ring), grid);
  expect([at(holed, 150, 105), at(holed, 60, 150)]).toEqual([0, 1]);
});

describe("at an edge a pixel gets as much as the shape covers of it", () => {
  const [large, small] = [
    { width: 1280, height: 852 },
    { width: 320, height: 213 },
  ];
  const hard = { inner: 0, outer: 0 };
  const ZIGZAG: [number, number][] = [
    [0.1, 0.1],
    [0.9, 0.15],
    [0.55, 0.3],
    [0.8, 0.6],
    [0.2, 0.5],
  ];
  const shapes: [string, DrawnShape][] = [
    ["oval", { id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.33, across: 0.3, down: 0.2, turnDeg: 20, ...hard }],
    [
      "oval, a hair soft",
      { id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.33, across: 0.3, down: 0.2, turnDeg: 20, inner: 0.0005, outer: 0.0005 },
    ],
    ["outline", outline(ZIGZAG, hard)],
    ["outline, a few pixels soft", outline(ZIGZAG, { inner: 0.002, outer: 0.003 })],
    [
      "sliver",
      outline(
        [
          [0.1, 0.1],
          [0.9, 0.302],
          [0.1, 0.102],
        ],
        hard,
      ),
    ],
    [
      "gradient, hard",
      { id: "g", combine: "add", kind: "gradient", from: { x: 0.3, y: 0.2 }, to: { x: 0.3004, y: 0.2001 }, twoSided: false },
    ],
    [
      "gradient, steep, to both sides",
      { id: "g", combine: "add", kind: "gradient", from: { x: 0.3, y: 0.2 }, to: { x: 0.304, y: 0.207 }, twoSided: true },
    ],
    [
      "gradient upright",
      { id: "g", combine: "add", kind: "gradient", from: { x: 0.3, y: 0.2 }, to: { x: 0.301, y: 0.2 }, twoSided: false },
    ],
  ];
  test.each(shapes)("%s: a quarter of the size is the mean of 16 pixels", (_, shape) => {
    const reduced = areaReduceRows(rasterShape(shape, wholeGrid(large)), 0, large, small, 0, small.height);
    const plane = rasterShape(shape, wholeGrid(small));
    const differences = [...plane].map((share, i) => Math.abs(share - reduced[i]!)).sort((a, b) => a - b);
    expect(differences.filter((d) => d > 0.01).length / differences.length).toBeLessThan(0.001);
    // What a sixteenth of a pixel's places can miss at a point or a crossing.
    expect(differences.at(-1)).toBeLessThan(0.06);
    expect(plane.some((share) => share > 0.3)).toBe(true);
  });
  test("and a part of a picture gets what the whole gets", () => {
    for (const [, shape] of shapes) {
      const whole = rasterShape(shape, wholeGrid(small));
      const part = rasterShape(shape, gridOf({ width: 77, height: 51 }, 101, 43, small));
      part.forEach((share, i) => expect(Math.abs(share - whole[(43 + Math.floor(i / 77)) * 320 + 101 + (i % 77)]!)).toBeLessThan(1e-5));
    }
  });
});

test("a gradient falls half way between its ends, by where the pixel's middle lies", () => {
  const gradient: DrawnShape = {
    id: "g",
    combine: "add",
    kind: "gradient",
    from: { x: 0.2, y: 0.3 },
    to: { x: 0.6, y: 0.3 },
    twoSided: false,
  };
  const row = rasterShape(gradient, gridOf({ width: 100, height: 1 }, 0, 30, { width: 100, height: 60 }));
  expect(row[39]! + row[40]!).toBeCloseTo(1, 6); // 0.4 lies between them
  expect(row[29]).toBeCloseTo(1 - 3 * (9.5 / 40) ** 2 + 2 * (9.5 / 40) ** 3, 6);
  expect([row[19], row[60]]).toEqual([1, 0]);
});

test("a broad edge read between cells is the edge measured pixel by pixel, and the same on a part and at another size", () => {
  const [W, H] = [1600, 1066];
  const whole = { width: W, height: H };
  const jagged = Array.from({ length: 9 }, (_, i) => ({
    x: 0.5 + (i % 2 ? 0.3 : 0.12) * Math.cos(0.7 * i),
    y: 0.33 + (i % 2 ? 0.25 : 0.1) * Math.sin(0.7 * i),
    smooth: false,
  }));
  const shapes = [
    { id: "o", combine: "add", kind: "oval", x: 0.4, y: 0.3, across: 0.3, down: 0.15, turnDeg: 20, inner: 0.06, outer: 0.09 },
    { id: "l", combine: "add", kind: "outline", corners: jagged, inner: 0.07, outer: 0.08 },
  ] as const;
  for (const made of shapes) {
    const shape = structuredClone(made) as OvalShape | OutlineShape;
    const read = rasterShape(shape, wholeGrid(whole));
    const frame = { width: 1, height: H / W };
    const measured = smoothEdges(beyondFrame(boundaryOf(shape), frame, shape), shape, wholeGrid(whole));
    const errors = [...read].map((share, i) => Math.abs(share - measured[i]!)).sort((a, b) => a - b);
    expect(errors.at(-1)).toBeLessThan(0.0065);
    expect(errors[Math.floor(0.99 * errors.length)]).toBeLessThan(1e-3);
    const part = rasterShape(shape, gridOf({ width: 90, height: 60 }, 711, 407, whole));
    part.forEach((share, i) => expect(share).toBe(read[(407 + Math.floor(i / 90)) * W + 711 + (i % 90)]!));
  }
});

test("a broad edge once laid out is laid anew for another softening, another frame, another size", () => {
  const made = {
    id: "o",
    combine: "add",
    kind: "oval",
    x: 0.5,
    y: 0.02,
    across: 0.4,
    down: 0.2,
    turnDeg: 0,
    inner: 0.05,
    outer: 0.09,
  } as const;
  const shape = { ...made };
  const asked: [number, number, number][] = [
    [1600, 1066, 0],
    [1600, 1066, 0.02],
    [1600, 800, 0],
    [2400, 1599, 0],
    [1600, 1066, 0],
  ];
  for (const [width, height, soften] of asked) {
    const grid = wholeGrid({ width, height });
    expect(furthest(rasterShape(shape, grid, soften), rasterShape({ ...made }, grid, soften))).toBe(0);
  }
});
