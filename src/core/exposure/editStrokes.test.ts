import { expect, test } from "vitest";
import { layStrokes } from "../brush/layStrokes";
import { packPath } from "../brush/stroke";
import { wholeGrid } from "../region/grid";
import { movedStroke, strokeAt, wayOf, withStrokes } from "./editStrokes";
import { exposureGoal, type ExposureStroke } from "./exposure";

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
  wayOf(moved).forEach(({ x, y }, i) => {
    expect(x).toBeCloseTo([0.25, 0.55, 0.85][i]!, 4);
    expect(y).toBeCloseTo(0.3, 4);
  });
});
