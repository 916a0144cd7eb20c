import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anyShape, anyStroke } from "../../../tests/anyRegion";
import { areaReduceRows } from "../spatial/areaReduce";
import { boxBlur } from "../spatial/boxBlur";
import { layStrokes } from "../brush/layStrokes";
import { layBase } from "../spatial/layBase";
import { combineShapes, finishRegion } from "./combineShapes";
import { unionBoundary } from "./boundary";
import { contourOf } from "./contour";
import { gridOf, wholeGrid, type Grid } from "../spatial/grid";
import { fittedBase, guidedBase } from "./guidedBase";
import { middleOfShape, movedShape, turnedShape } from "./moveShape";
import { brushGoal, brushGrid, rasterShape, type DrawnShape } from "./rasterShape";
import type { OutlineShape, OvalShape, Shape } from "./region";
import { signedDistance } from "./signedDistance";

const square = (from: number, to: number): Float64Array => Float64Array.from([from, from, to, from, to, to, from, to]);

function windingOf(line: Float64Array, x: number, y: number): number {
  let angle = 0;
  for (let i = 0; i < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i]!, line[i + 1]!, line[(i + 2) % line.length]!, line[(i + 3) % line.length]!];
    angle += Math.atan2((ax - x) * (by - y) - (ay - y) * (bx - x), (ax - x) * (bx - x) + (ay - y) * (by - y));
  }
  return Math.round(angle / (2 * Math.PI));
}

function onLine(line: Float64Array, x: number, y: number): boolean {
  for (let i = 0; i < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i]!, line[i + 1]!, line[(i + 2) % line.length]!, line[(i + 3) % line.length]!];
    const length2 = (bx - ax) ** 2 + (by - ay) ** 2;
    const u = length2 ? Math.min(Math.max(((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length2, 0), 1) : 0;
    if (Math.hypot(x - ax - u * (bx - ax), y - ay - u * (by - ay)) < 1e-6) return true;
  }
  return false;
}

/** Places close together along a line where the inside, what the line winds round, lies to one side only. */
function boundaryPlaces(line: Float64Array): [number, number][] {
  const [step, beside] = [2e-3, 1e-5];
  const places: [number, number][] = [];
  for (let i = 0; i < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i]!, line[i + 1]!, line[(i + 2) % line.length]!, line[(i + 3) % line.length]!];
    const length = Math.hypot(bx - ax, by - ay);
    const count = Math.ceil(length / step);
    for (let k = 0; k <= count; k++) {
      const [x, y] = [ax + ((bx - ax) * k) / count, ay + ((by - ay) * k) / count];
      const [nx, ny] = [(-(by - ay) / length) * beside, ((bx - ax) / length) * beside];
      if (length > 0 && (windingOf(line, x + nx, y + ny) !== 0) !== (windingOf(line, x - nx, y - ny) !== 0)) places.push([x, y]);
    }
  }
  return places;
}

describe("signed distance", () => {
  /** On a lattice, so that lines touch, run on one another and meet in corners as often as they cross. */
  const place = fc.integer({ min: -10, max: 58 }).map((k) => k / 48);
  test.each([
    [25, 18, 60],
    [110, 70, 5], // several blocks
  ])("agrees with brute force for any line, crossing itself or not, on a part of %i by %i pixels", (width, height, numRuns) => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 6, maxLength: 20 }),
        fc.integer({ min: 20, max: 60 }),
        fc.nat(2),
        (numbers, percent, twice) => {
          const scale = (percent / 25) * width;
          const line = Float64Array.from(numbers.slice(0, 2 * Math.floor(numbers.length / 2)));
          if (twice) line.copyWithin(2 * twice, 2, 4); // at times a corner stands twice in the same place
          const grid = gridOf({ width, height }, 3, 2, { width: scale, height: Math.round(0.7 * scale) });
          const measured = signedDistance(unionBoundary(line), grid, 0.3);
          const places = boundaryPlaces(line);
          let furthest = 0;
          measured.forEach((away, i) => {
            const [x, y] = [(3.5 + (i % width)) / scale, (2.5 + Math.floor(i / width)) / scale];
            let least = Infinity;
            for (const [px, py] of places) least = Math.min(least, (px - x) ** 2 + (py - y) ** 2);
            const exact = Math.sqrt(least);
            if (exact < 3e-3 || onLine(line, x, y)) return; // there either side is right
            furthest = Math.max(furthest, Math.abs(away - Math.min(exact, 0.3) * (windingOf(line, x, y) !== 0 ? -1 : 1)));
          });
          // Places are 0.002 apart, and at corners it is not told which side is in: the nearest is up to that far along.
          expect(furthest).toBeLessThan(2.2e-3);
        },
      ),
      { seed: 3, numRuns },
    );
  });
  test("of a line that crosses nothing is exact", () => {
    const line = Float64Array.from([0.1, 0.1, 0.8, 0.2, 0.5, 0.4, 0.9, 0.9, 0.2, 0.7]);
    const grid = gridOf({ width: 90, height: 90 }, 3, 2, { width: 100, height: 100 });
    signedDistance(unionBoundary(line), grid, 0.3).forEach((away, i) => {
      const [x, y] = [(3.5 + (i % 90)) / 100, (2.5 + Math.floor(i / 90)) / 100];
      let least = 0.3;
      for (let k = 0; k < 10; k += 2) {
        const [ax, ay, bx, by] = [line[k]!, line[k + 1]!, line[(k + 2) % 10]!, line[(k + 3) % 10]!];
        const u = Math.min(Math.max(((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2), 0), 1);
        least = Math.min(least, Math.hypot(x - ax - u * (bx - ax), y - ay - u * (by - ay)));
      }
      if (least > 1e-6) expect(away).toBeCloseTo(windingOf(line, x, y) !== 0 ? -least : least, 5);
    });
  });
  test("of a circle overrun by a fifth has no seam within, and is that of the circle", () => {
    const round = (turns: number) =>
      Float64Array.from({ length: 2 * Math.round(60 * turns) }, (_, k) => {
        const angle = (2 * Math.PI * Math.floor(k / 2)) / 60;
        return k % 2 ? 0.5 + 0.3 * Math.sin(angle) : 0.5 + 0.3 * Math.cos(angle);
      });
    const grid = wholeGrid({ width: 120, height: 120 });
    const [once, overrun, twice] = [1, 1.2, 2].map((turns) => signedDistance(unionBoundary(round(turns)), grid, 1));
    // Closing the overrun line runs a chord through the inside: it is no boundary.
    overrun!.forEach((away, i) => expect(Math.abs(away - once![i]!)).toBeLessThan(1e-6));
    twice!.forEach((away, i) => expect(Math.abs(away - once![i]!)).toBeLessThan(1e-6));
  });
  test("of a square is what one measures with a ruler", () => {
    const grid = wholeGrid({ width: 100, height: 100 });
    const away = signedDistance(unionBoundary(square(0.2, 0.8)), grid, 1);
    expect(away[50 * 100 + 50]).toBeCloseTo(-0.295, 6); // the pixel's middle lies at 0.505
    expect(away[50 * 100 + 9]).toBeCloseTo(0.105, 6);
    expect(away[9 * 100 + 9]).toBeCloseTo(Math.SQRT2 * 0.105, 6);
  });
  test("a line with fewer than three corners holds nothing", () => {
    const grid = wholeGrid({ width: 8, height: 8 });
    for (const away of signedDistance(unionBoundary(Float64Array.from([0.1, 0.1, 0.9, 0.9])), grid, 0.5)) expect(away).toBe(0.5);
  });
});

const oval: OvalShape = {
  id: "o",
  combine: "add",
  kind: "oval",
  x: 0.5,
  y: 0.35,
  across: 0.25,
  down: 0.15,
  turnDeg: 25,
  inner: 0.04,
  outer: 0.06,
};

describe("shapes on a grid", () => {
  test("any shape is between nothing and all, and a part of a picture is the same part of the whole", () => {
    fc.assert(
      fc.property(anyShape, (shape) => {
        if (shape.kind === "likeness") return;
        const size = { width: 48, height: 32 };
        const whole = rasterShape(shape, wholeGrid(size));
        const part = rasterShape(shape, gridOf({ width: 20, height: 9 }, 17, 11, size));
        part.forEach((share, i) => {
          expect(share >= 0 && share <= 1).toBe(true);
          expect(Math.abs(share - whole[(11 + Math.floor(i / 20)) * 48 + 17 + (i % 20)]!)).toBeLessThan(1e-6);
        });
      }),
      { seed: 5, numRuns: 80 },
    );
  });
  test("at any size agrees with any other within 4 %: a quarter of the size is the mean of 16 pixels", () => {
    const soft: DrawnShape[] = [
      oval,
      { id: "g", combine: "add", kind: "gradient", from: { x: 0.2, y: 0.1 }, to: { x: 0.7, y: 0.5 }, twoSided: true },
      {
        id: "l",
        combine: "add",
        kind: "outline",
        corners: [0, 1, 2, 3, 4].map((k) => ({ x: 0.5 + 0.3 * Math.cos(2.1 * k), y: 0.3 + 0.2 * Math.sin(2.1 * k), smooth: k % 2 === 0 })),
        inner: 0.01,
        outer: 0.02,
      },
    ];
    for (const shape of soft) {
      const [large, small] = [
        { width: 960, height: 640 },
        { width: 240, height: 160 },
      ];
      const reduced = areaReduceRows(rasterShape(shape, wholeGrid(large)), 0, large, small, 0, small.height);
      rasterShape(shape, wholeGrid(small)).forEach((share, i) => expect(Math.abs(share - reduced[i]!)).toBeLessThan(0.04));
    }
  });
  test("a hard edge is drawn over one pixel, so that it has no steps", () => {
    const plane = rasterShape({ ...oval, inner: 0, outer: 0 }, wholeGrid({ width: 300, height: 200 }));
    const between = plane.filter((share) => share > 0.01 && share < 0.99).length;
    expect(between).toBeGreaterThan(200);
    expect(between).toBeLessThan(900); // the contour is about 380 pixels long
  });
  test("full from the inner edge on, half on the contour of even edges, nothing from the outer edge on", () => {
    const even = { ...oval, turnDeg: 0, inner: 0.05, outer: 0.05 };
    const at = (x: number) => rasterShape(even, gridOf({ width: 1, height: 1 }, 1000 * x - 0.5, 349.5, { width: 1000, height: 700 }))[0]!;
    expect(at(0.75 - 0.051)).toBe(1);
    expect(at(0.75)).toBeCloseTo(0.5, 1);
    expect(at(0.75 + 0.051)).toBe(0);
  });
});

const furthest = (a: Float32Array, b: Float32Array) => a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);

describe("shapes together", () => {
  const planes = { a: Float32Array.of(0, 0.5, 1, 0.3), b: Float32Array.of(0.5, 0.5, 0.25, 1) };
  const shape = (id: "a" | "b", combine: "add" | "subtract" | "intersect") => ({ ...oval, id, combine });
  const planeOf = ({ id }: { id: string }, own: boolean) => (own ? planes[id as "a" | "b"].slice() : planes[id as "a" | "b"]);
  test.each([
    ["add", (a: number, b: number) => 1 - (1 - a) * (1 - b)],
    ["subtract", (a: number, b: number) => a * (1 - b)],
    ["intersect", (a: number, b: number) => a * b],
  ] as const)("%s", (combine, expected) => {
    const out = combineShapes([shape("a", "add"), shape("b", combine)], planeOf, 4);
    out.forEach((share, i) => expect(share).toBeCloseTo(expected(planes.a[i]!, planes.b[i]!), 6));
    // What was not asked for as its own is left alone.
    expect([...planes.a, ...planes.b]).toEqual([...Float32Array.of(0, 0.5, 1, 0.3, 0.5, 0.5, 0.25, 1)]);
  });
  test("one that begins by taking away begins with the whole picture; none at all is nothing", () => {
    expect([...combineShapes([shape("b", "subtract")], planeOf, 4)]).toEqual([0.5, 0.5, 0.75, 0]);
    expect([...combineShapes([], planeOf, 4)]).toEqual([0, 0, 0, 0]);
  });
  test("strokes that erase beneath leave of a shape what they leave of it laid right on it, and other erasing leaves it alone", () => {
    const grid = wholeGrid({ width: 60, height: 40 });
    const under = { ...oval, id: "under" };
    const laid = rasterShape(under, grid);
    fc.assert(
      fc.property(fc.array(anyStroke, { maxLength: 4 }), (any) => {
        const strokes = any.map((stroke) => ({ ...stroke, radius: Math.max(stroke.radius, 0.01) }));
        const brush = { id: "b", combine: "add", kind: "brush", x: 0.02, y: -0.01, strokes, beneath: true } as const;
        const lay = (shape: Shape) => rasterShape(shape as DrawnShape, grid);
        const own = combineShapes([under, { ...brush, beneath: false }], lay, laid.length);
        const both = combineShapes([under, brush], lay, laid.length);
        if (strokes.every(({ erase }) => !erase)) expect(furthest(both, own)).toBeLessThan(1e-5);
        expect(own.every((share, i) => share >= laid[i]! - 1e-6)).toBe(true);
        const onIt = laid.slice();
        layStrokes(onIt, brushGrid(brush, grid), strokes, brushGoal);
        // Dabs with hard edges err by a little where others lie on them.
        expect(furthest(both, onIt)).toBeLessThan(5e-3);
      }),
      { numRuns: 40, endOnFailure: true },
    );
  });
  test("inverted and thinned", () => {
    const plane = Float32Array.of(0, 0.25, 1);
    finishRegion(plane, { invert: true, density: 0.5 });
    expect([...plane]).toEqual([0.5, 0.375, 0]);
  });
});

describe("moving and turning", () => {
  test("a moved shape is the shape drawn elsewhere, a turn of 360° none", () => {
    const size = { width: 60, height: 40 };
    const shifted = rasterShape(movedShape(oval, 3 / 60, -2 / 60) as OvalShape, wholeGrid(size));
    const plain = rasterShape(oval, wholeGrid(size));
    for (let y = 0; y < 38; y++)
      for (let x = 3; x < 60; x++) expect(Math.abs(shifted[y * 60 + x]! - plain[(y + 2) * 60 + x - 3]!)).toBeLessThan(1e-5);
    const turned = turnedShape(turnedShape(oval, { x: 0.2, y: 0.2 }, 90, 2), { x: 0.2, y: 0.2 }, 270, 0.5) as OvalShape;
    for (const key of ["x", "y", "across", "down", "turnDeg"] as const) expect(turned[key]).toBeCloseTo(oval[key], 9);
  });
  test("the middle of an outline moves with it", () => {
    const outline: OutlineShape = {
      id: "l",
      combine: "add",
      kind: "outline",
      corners: [
        { x: 0, y: 0, smooth: false },
        { x: 0.4, y: 0, smooth: true },
        { x: 0.2, y: 0.3, smooth: false },
      ],
      inner: 0,
      outer: 0,
    };
    expect(middleOfShape(movedShape(outline, 0.1, 0.2))!.x).toBeCloseTo(0.3, 9);
    expect(contourOf(outline).length).toBeGreaterThan(6);
  });
});

describe("fitting to edges", () => {
  const size = { width: 200, height: 120 };
  const step = Float32Array.from({ length: 200 * 120 }, (_, i) => (i % 200 < 100 ? 0.3 : 0.7));
  /** Drawn by a careless hand: its edge runs up to 6 pixels beside the step. */
  const rough = Float32Array.from({ length: 200 * 120 }, (_, i) => (i % 200 < 100 + 6 * Math.sin(Math.floor(i / 200) / 9) ? 1 : 0));
  const grid: Grid = wholeGrid(size);
  const fitted = layBase(fittedBase(rough, step, size, 8), grid, step);
  const errorOf = (mask: Float32Array) => {
    let sum = 0;
    for (let i = 0; i < mask.length; i++) if (Math.abs((i % 200) - 100) < 20) sum += Math.abs(mask[i]! - (i % 200 < 100 ? 1 : 0));
    return sum / (40 * 120);
  };
  test("brings a rough edge to the picture's", () => expect(errorOf(fitted)).toBeLessThan(0.4 * errorOf(rough)));
  test("leaves a soft edge away from the picture's as soft as it was", () => {
    const soft = Float32Array.from({ length: 200 * 120 }, (_, i) => Math.min(Math.max(((i % 200) - 20) / 50, 0), 1));
    const kept = layBase(fittedBase(soft, step, size, 6), grid, step);
    kept.forEach((share, i) => i % 200 < 66 && expect(Math.abs(share - soft[i]!)).toBeLessThan(0.08));
  });
  test("a guided window alone does not", () =>
    expect(errorOf(layBase(guidedBase(rough, step, size, 8), grid, step))).toBeGreaterThan(0.7 * errorOf(rough)));
  test("leaves no halo: a pass of two zones through the mask strays by under a seventh of a zone beside the edge, drawn roughly by two", () => {
    // How far tones beside the step stray from those a mask along the step would give.
    const halo = (mask: Float32Array) =>
      Math.max(...mask.map((share, i) => (Math.abs((i % 200) - 99.5) < 20 ? Math.abs(0.2 * (share - (i % 200 < 100 ? 1 : 0))) : 0)));
    expect(halo(rough)).toBeCloseTo(0.2, 6);
    expect(halo(fitted)).toBeLessThan(0.1);
  });
  test("the small one laid over agrees with the full-size one", () => {
    const small = { width: 100, height: 60 };
    const reduced = (plane: Float32Array) => areaReduceRows(plane, 0, size, small, 0, small.height);
    const laid = layBase(fittedBase(reduced(rough), reduced(step), small, 4), grid, step);
    const mean = laid.reduce((sum, share, i) => sum + Math.abs(share - fitted[i]!), 0) / laid.length;
    expect(mean).toBeLessThan(0.01);
  });
  test("the window leaves a level plane level, keeps the mean of a point, and is about as wide as it says", () => {
    expect(Math.max(...boxBlur(new Float32Array(200 * 120).fill(0.4), size, 7).map((v) => Math.abs(v - 0.4)))).toBeLessThan(1e-6);
    const point = new Float32Array(200 * 120);
    point[60 * 200 + 100] = 1;
    const blurred = boxBlur(point, size, 5);
    const sum = blurred.reduce((all, v) => all + v, 0);
    expect(sum).toBeCloseTo(1, 4);
    const variance = blurred.reduce((all, v, i) => all + v * ((i % 200) - 100) ** 2, 0);
    expect(Math.sqrt(variance)).toBeGreaterThan(4.4);
    expect(Math.sqrt(variance)).toBeLessThan(5.6);
  });
});
