import type { ExposureStroke } from "../steps/placedStops";
import { expect, test } from "vitest";
import { layStrokes } from "../brush/layStrokes";
import { packPath } from "../brush/stroke";
import { wholeGrid } from "../spatial/grid";
import { handwork, handworkPatches } from "./handwork";
import { softenedStroke } from "../passes/exposure/editStrokes";
import { exposureGoal } from "../passes/exposure/exposure";

const size = { width: 640, height: 400 };
const level = new Float32Array(size.width * size.height).fill(0.5);
const textured = level.map((t, i) => t + 0.08 * (((i * 7919) % 97) / 48.5 - 1));

function painted(change: Partial<ExposureStroke>): { stroke: ExposureStroke; stops: Float32Array } {
  const path = packPath([
    { x: 0.3, y: 0.3, pressure: 1 },
    { x: 0.6, y: 0.35, pressure: 1 },
  ]);
  const stroke = {
    radius: 0.06,
    hardness: 0.1,
    flow: 0.3,
    pressure: "none",
    erase: false,
    burns: false,
    ceiling: 0.5,
    path,
    ...change,
  } as const;
  const stops = new Float32Array(size.width * size.height);
  layStrokes(stops, wholeGrid(size), [stroke], exposureGoal);
  return { stroke, stops };
}

const most = (plane: Float32Array) => plane.reduce((highest, value) => Math.max(highest, value), 0);

test("a hard edge shows on smooth ground, hides over texture, and a soft one shows nowhere", () => {
  const [hard, soft] = [painted({ hardness: 0.8 }).stops, painted({ flow: 0.05, hardness: 0 }).stops];
  expect(most(handwork(hard, level, size))).toBeGreaterThan(1.5);
  expect(most(handwork(hard, textured, size))).toBeLessThan(1);
  expect(most(handwork(soft, level, size))).toBeLessThan(1);
  expect(most(handwork(new Float32Array(level.length), level, size))).toBe(0);
});

test("what shows is the edge, not the middle; softening its strokes again and again makes an end of it", () => {
  let { stroke, stops } = painted({ hardness: 0.8 });
  const patch = handworkPatches(handwork(stops, level, size), size)[0]!;
  expect(patch.cells.length).toBeGreaterThan(200);
  expect(handwork(stops, level, size)[Math.round(0.325 * 640) * 640 + Math.round(0.45 * 640)]).toBeLessThan(0.5);
  let times = 0;
  while (handworkPatches(handwork(stops, level, size), size).length > 0 && times < 10) {
    stroke = softenedStroke(stroke);
    ({ stops } = painted(stroke));
    times++;
  }
  expect(times).toBeGreaterThan(0);
  expect(times).toBeLessThan(8);
});

test("the measure does not depend on the size it is taken at", () => {
  const { stroke } = painted({ hardness: 0.6 });
  const at = (width: number) => {
    const other = { width, height: Math.round((width * 400) / 640) };
    const stops = new Float32Array(other.width * other.height);
    layStrokes(stops, wholeGrid(other), [stroke], exposureGoal);
    return most(handwork(stops, new Float32Array(stops.length).fill(0.5), other));
  };
  expect(at(640) / at(1000)).toBeCloseTo(1, 0.7);
});

test("what shows does not depend on how much picture there is across the long edge", () => {
  const { stops } = painted({ hardness: 0.6 });
  const taller = { width: size.width, height: 560 };
  const onTaller = (plane: Float32Array, below: number) => {
    const out = new Float32Array(taller.width * taller.height).fill(below);
    out.set(plane);
    return out;
  };
  const measured = handwork(onTaller(stops, 0), onTaller(level, 0.5), taller);
  handwork(stops, level, size).forEach((value, i) => expect(Math.abs(measured[i]! - value)).toBeLessThan(1e-4 * (1 + value)));
});
