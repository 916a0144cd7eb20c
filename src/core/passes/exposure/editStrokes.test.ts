import type { ExposureStroke } from "../../steps/placedStops";
import { describe, expect, test } from "vitest";
import { layStrokes } from "../../brush/layStrokes";
import { packPath } from "../../brush/stroke";
import { wholeGrid } from "../../spatial/grid";
import { pathPoints } from "../../brush/path";
import { clearedWithin, movedStroke, strokeAt, strokesReaching, withStrokes } from "./editStrokes";
import { exposureGoal } from "./exposure";

const stroke = (y: number, changed: Partial<ExposureStroke> = {}): ExposureStroke => ({
  radius: 0.1,
  hardness: 0.2,
  flow: 0.2,
  pressure: "none",
  erase: false,
  burns: false,
  ceiling: 0.5,
  path: packPath([0.2, 0.5, 0.8].map((x) => ({ x, y, pressure: 1 }))),
  ...changed,
});

test("a touch picks the stroke whose way lies nearest, the newest of equals, none where none reaches", () => {
  const strokes = [stroke(0.2), stroke(0.3), stroke(0.3), stroke(0.6)];
  expect(strokeAt(strokes, { x: 0.4, y: 0.22 })).toBe(0);
  expect(strokeAt(strokes, { x: 0.4, y: 0.29 })).toBe(2);
  expect(strokeAt(strokes, { x: 0.85, y: 0.6 })).toBe(3); // beside its end, but within its radius
  expect(strokeAt(strokes, { x: 0.4, y: 0.45 })).toBeUndefined();
  expect(strokeAt([], { x: 0, y: 0 })).toBeUndefined();
});

test("a changed stroke is as one painted so at once; the others are the very same", () => {
  const mapOf = (strokes: readonly ExposureStroke[]) => {
    const plane = new Float32Array(60 * 40);
    layStrokes(plane, wholeGrid({ width: 60, height: 40 }), strokes, exposureGoal);
    return plane;
  };
  const strokes = [stroke(0.2), stroke(0.3), stroke(0.4)];
  const changed = withStrokes(strokes, new Set([1]), (each) => ({ ...each, ceiling: 1, radius: 0.15 }));
  expect([changed[0], changed[2]]).toEqual([strokes[0], strokes[2]]);
  expect(changed[0]).toBe(strokes[0]);
  expect(mapOf(changed)).toEqual(mapOf([stroke(0.2), stroke(0.3, { ceiling: 1, radius: 0.15 }), stroke(0.4)]));
  const moved = movedStroke(strokes[0]!, 0.05, 0.1);
  pathPoints(moved.path).forEach(({ x, y }, i) => {
    expect(x).toBeCloseTo([0.25, 0.55, 0.85][i]!, 4);
    expect(y).toBeCloseTo(0.3, 4);
  });
});

test("strokes are found by the places they reach", () => {
  const strokes = [stroke(0.2), stroke(0.5), stroke(0.5, { radius: 0.01 })];
  expect(strokesReaching(strokes, [{ x: 0.5, y: 0.56 }])).toEqual([1]);
  expect(
    strokesReaching(strokes, [
      { x: 0.5, y: 0.5 },
      { x: 0.2, y: 0.11 },
    ]),
  ).toEqual([0, 1, 2]);
  expect(strokesReaching(strokes, [{ x: 0.5, y: 0.9 }])).toEqual([]);
});

describe("within a loop", () => {
  const loop = [
    { x: 0.4, y: 0.1 },
    { x: 0.6, y: 0.1 },
    { x: 0.6, y: 0.4 },
    { x: 0.4, y: 0.4 },
  ];
  test("a way through it is cut in two, one inside is gone, one outside stays the very same", () => {
    const [through, inside, outside] = [
      stroke(0.2),
      stroke(0.3, { path: packPath([0.45, 0.55].map((x) => ({ x, y: 0.3, pressure: 1 }))) }),
      stroke(0.6),
    ];
    const left = clearedWithin([through, inside, outside], loop, () => true);
    expect(left).toHaveLength(3);
    expect(left[2]).toBe(outside);
    const ends = left.slice(0, 2).map((piece) => pathPoints(piece.path).map(({ x }) => x));
    expect(ends[0]![0]).toBeCloseTo(0.2, 2);
    expect(ends[0]!.at(-1)).toBeCloseTo(0.4, 2);
    expect(ends[1]![0]).toBeCloseTo(0.6, 2);
    expect(ends[1]!.at(-1)).toBeCloseTo(0.8, 2);
    for (const piece of left) for (const { x, y } of pathPoints(piece.path)) expect(x > 0.4 && x < 0.6 && y < 0.4).toBe(false);
  });
  test("what is not meant stays, and so does what erases", () => {
    const strokes = [stroke(0.2, { burns: true }), stroke(0.2), stroke(0.2, { erase: true })];
    const left = clearedWithin(strokes, loop, ({ burns }) => !burns);
    expect([left[0], left.at(-1)]).toEqual([strokes[0], strokes[2]]);
    expect(left).toHaveLength(4);
  });
  test("pressure goes on along the pieces as it did along the whole", () => {
    const path = packPath([
      { x: 0, y: 0.2, pressure: 0 },
      { x: 1, y: 0.2, pressure: 1 },
    ]);
    for (const piece of clearedWithin([stroke(0.2, { path })], loop, () => true)) {
      for (const { x, pressure } of pathPoints(piece.path)) expect(pressure).toBeCloseTo(x, 3);
    }
  });
});
