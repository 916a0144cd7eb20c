import { restingExposure } from "@/core/passes/exposure/fields";
import type { ExposureStroke } from "@/core/steps/placedStops";
import { expect, test } from "vitest";
import { layStrokes } from "@/core/brush/layStrokes";
import { packPath } from "@/core/brush/stroke";
import { gridOf } from "@/core/spatial/grid";
import { brushGoal } from "@/core/region/rasterShape";
import { inNewState } from "../machine/grownPlane";
import { StrokeMaps, type LayStrokes } from "./strokeMaps";

const whole = { width: 6000, height: 4000 };
const part = gridOf({ width: 700, height: 300 }, 1500, 900, whole);

function stroke(i: number, change: Partial<ExposureStroke> = {}): ExposureStroke {
  const path = packPath([
    { x: 0.2 + 0.01 * (i % 7), y: 0.15 + 0.004 * i, pressure: 1 },
    { x: 0.4 - 0.02 * (i % 5), y: 0.2 + 0.003 * i, pressure: 0.6 },
  ]);
  return {
    radius: 0.05,
    hardness: 0.1,
    flow: 0.08,
    pressure: "flow",
    erase: i % 11 === 10,
    burns: i % 3 === 0,
    ceiling: 0.5 + 0.1 * (i % 4),
    path,
    ...change,
  };
}

/** Lays on the part's own pixels, counting how often. */
function direct(): LayStrokes & { times: number } {
  const lay = Object.assign(
    ((_, strokes, goalOf) => {
      lay.times++;
      const plane = new Float32Array(part.width * part.height);
      layStrokes(plane, part, strokes, goalOf);
      return inNewState(plane);
    }) as LayStrokes,
    { times: 0 },
  );
  return lay;
}

const peak = (plane: Float32Array) => plane.reduce((most, value) => Math.max(most, value), -Infinity);
const largest = (a: Float32Array, b: Float32Array) => a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);

test("broad strokes on a large picture are laid on cells and read between them, within a few thousandths of a stop", () => {
  // The same place is painted again and again, until its edges grow steep.
  const strokes = Array.from({ length: 60 }, (_, i) => stroke(i % 12));
  const settings = { ...restingExposure(), strokes, burn: 0.7 };
  const lay = direct();
  const laid = new StrokeMaps(whole).painted("pass", settings, part, lay)!.plane;
  expect(lay.times).toBe(0);
  // As if the picture were too small to be worth it.
  const exact = new StrokeMaps({ width: 700, height: 300 }).painted("pass", settings, part, lay)!.plane;
  expect(lay.times).toBe(2);
  expect(peak(exact) - -peak(exact.map((v) => -v))).toBeGreaterThan(0.25);
  expect(largest(laid, exact)).toBeLessThan(0.003);
});

test("hard strokes are laid on the pixels themselves, however large the picture", () => {
  const settings = { ...restingExposure(), strokes: [stroke(1, { hardness: 1 }), stroke(2)] };
  const lay = direct();
  new StrokeMaps(whole).painted("pass", settings, part, lay);
  expect(lay.times).toBe(1);
});

test("a brushed area that was moved lies where it was moved to", () => {
  const strokes = Array.from({ length: 8 }, (_, i) => stroke(i, { burns: false }));
  const shape = { id: "area", kind: "brush" as const, beneath: true, combine: "add" as const, x: 0.013, y: -0.021, strokes };
  const laid = new StrokeMaps(whole).brushed(shape, part)!;
  const exact = new Float32Array(laid.length);
  layStrokes(exact, { ...part, x: part.x - 0.013 * 6000, y: part.y + 0.021 * 6000 }, strokes, brushGoal);
  expect(peak(exact)).toBeGreaterThan(0.5);
  expect(largest(laid, exact)).toBeLessThan(0.003);
});

test("softened as a whole, what is painted keeps its sum and loses its edges; held, it stays below its limit", () => {
  const strokes = [stroke(1, { hardness: 1, flow: 1, ceiling: 2, burns: false })];
  const small = { width: 600, height: 400 };
  const grid = gridOf(small, 0, 0, small);
  const lay: LayStrokes = (_, some, goalOf) => {
    const plane = new Float32Array(600 * 400);
    layStrokes(plane, grid, some, goalOf);
    return inNewState(plane);
  };
  const painted = (change: object) => new StrokeMaps(small).painted("pass", { ...restingExposure(), strokes, ...change }, grid, lay)!.plane;
  const steepest = (plane: Float32Array) => plane.reduce((most, value, i) => Math.max(most, Math.abs(value - (plane[i - 1] ?? value))), 0);
  const sum = (plane: Float32Array) => plane.reduce((total, value) => total + value, 0);
  const [sharp, soft] = [painted({}), painted({ soften: 0.01 })];
  expect(sum(soft) / sum(sharp)).toBeCloseTo(1, 1);
  expect(steepest(soft)).toBeLessThan(steepest(sharp) / 5);
  const held = painted({ limit: 0.8 });
  expect(peak(held)).toBeLessThan(0.8);
  expect(peak(held)).toBeGreaterThan(0.6);
});

test("a stroke that goes on on a large picture changes only the rows it reaches, and every state is what a fresh map gives", () => {
  const maps = new StrokeMaps(whole);
  const before = Array.from({ length: 3 }, (_, i) => stroke(i));
  const points = Array.from({ length: 5 }, (_, i) => ({ x: 0.3 + 0.004 * i, y: 0.153 + 0.009 * i, pressure: 1 }));
  let partly = 0;
  for (const limit of [null, 0.4]) {
    for (const burns of [false, true]) {
      for (let n = 1; n <= points.length; n++) {
        const strokes = [...before, stroke(0, { radius: 0.01, hardness: 0, burns, path: packPath(points.slice(0, n)) })];
        const settings = { ...restingExposure(), strokes, limit };
        const grown = maps.painted("pass", settings, part, direct())!;
        if (grown.grown && grown.grown.rows.to - grown.grown.rows.from < part.height) partly++;
        expect(largest(grown.plane, new StrokeMaps(whole).painted("pass", settings, part, direct())!.plane)).toBe(0);
      }
    }
  }
  expect(partly).toBeGreaterThan(4);
});
