import { restingExposure } from "@/core/passes/exposure/fields";
import type { ExposureStroke } from "@/core/steps/placedStops";
import { beforeEach, expect, test, vi } from "vitest";
import { Plan as PlanSchema } from "@/contracts/plan";
import { unpackPath } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { MOST_STROKES } from "@/core/region/region";
import { createBenchStore, type BenchStart, type BenchStore } from "../../state/benchStore";
import type { SaveQueue } from "../../state/saveQueue";
import type { Touch } from "./drawer";
import { clearLoop } from "../../passes/exposure/exposureTools";
import { expose } from "../../passes/exposure/expose";

// Hands that do what no hand does: whatever comes, the plan stays one that can be kept.

vi.setConfig({ testTimeout: 30_000 });

let store: BenchStore;

function storeWith(strokes: ExposureStroke[]): BenchStore {
  const plan = defaultPlan();
  plan.passes = [{ ...restingPass("exposure", "pass", "Pass"), move: { kind: "exposure", ...restingExposure(), strokes } }];
  const saves = { add: vi.fn(), restore: async () => [], isEmpty: true } as unknown as SaveQueue;
  const start = {
    plan,
    print: { id: "print", head: "head", pins: [] },
    revisions: [],
    prepared: { width: 300, height: 200 },
  } as unknown as BenchStart;
  return createBenchStore(start, () => saves);
}

beforeEach(() => {
  store = storeWith([]);
});

const touch = (x: number, y: number, change: Partial<Touch> = {}): Touch => ({
  x,
  y,
  pressure: 1,
  near: 0.005,
  shift: false,
  alt: false,
  ctrl: false,
  ...change,
});
const strokesNow = () => {
  const { move } = store.getState().plan.passes[0]!;
  return move.kind === "exposure" ? move.strokes : [];
};
const isValid = () => PlanSchema.safeParse(store.getState().plan).success;
/** Round and round, never twice at the same place. */
const spiral = (i: number) => touch(0.4 + 0.3 * Math.cos(i / 40) * (1 - i / 2e6), 0.4 + 0.3 * Math.sin(i / 40) * (1 - i / 2e6));

test("a movement of a million points becomes strokes that can be kept, and lies where the hand went", () => {
  const drawer = expose(spiral(0), store, false)!;
  for (let from = 1; from < 1e6; from += 5000) drawer.move(Array.from({ length: 5000 }, (_, k) => spiral(from + k)));
  drawer.finish();
  expect(strokesNow().length).toBeGreaterThan(100);
  expect(isValid()).toBe(true);
  for (const { path } of strokesNow().slice(0, 50)) {
    const way = unpackPath(path);
    for (let i = 0; i < way.length; i += 3) expect(Math.abs(Math.hypot(way[i]! - 0.4, way[i + 1]! - 0.4) - 0.3)).toBeLessThan(0.05);
  }
});

test("where no more strokes fit, an endless one goes on with fewer points, and another is refused in words", () => {
  expose(touch(0.2, 0.2), store, false)!.finish();
  const [one] = strokesNow();
  store = storeWith(Array.from({ length: MOST_STROKES - 1 }, () => ({ ...one! })));
  const drawer = expose(spiral(0), store, false)!;
  for (let from = 1; from < 20_000; from += 1000) drawer.move(Array.from({ length: 1000 }, (_, k) => spiral(from + k)));
  drawer.finish();
  expect(strokesNow()).toHaveLength(MOST_STROKES);
  expect(isValid()).toBe(true);
  expect(expose(spiral(0), store, false)).toBeUndefined();
  expect(store.getState().failure).toContain("as many strokes as it can");
});

test("a press without a movement is a dab; places and pressures that are none are left out", () => {
  expose(touch(0.3, 0.3), store, true)!.finish();
  expect(unpackPath(strokesNow()[0]!.path)).toHaveLength(3);
  const drawer = expose(touch(0.3, 0.3), store, false)!;
  drawer.move([touch(NaN, 0.4), touch(0.4, Infinity), touch(0.5, 0.5, { pressure: NaN })]);
  drawer.finish();
  const way = unpackPath(strokesNow()[1]!.path);
  expect(way).toHaveLength(6);
  expect(way[3]).toBeCloseTo(0.5, 3);
  expect(way[5]).toBe(1);
  expect(isValid()).toBe(true);
});

test("far out of the picture and back, the way stays within what can be kept", () => {
  const drawer = expose(touch(0.5, 0.5), store, false)!;
  drawer.move([touch(40, -30), touch(0.6, 0.5)]);
  drawer.finish();
  const way = unpackPath(strokesNow()[0]!.path);
  for (let i = 0; i < way.length; i += 3) expect(way[i]! >= -0.5 && way[i]! <= 1.5 && way[i + 1]! >= -0.5).toBe(true);
  expect(way.at(-3)).toBeCloseTo(0.6, 3);
});

test("a loop of a million points, round and round, clears what lies within", () => {
  expose(touch(0.4, 0.4), store, false)!.finish();
  expose(touch(0.9, 0.4), store, false)!.finish();
  const drawer = clearLoop(spiral(0), store)!;
  for (let from = 1; from < 1e6; from += 5000) drawer.move(Array.from({ length: 5000 }, (_, k) => spiral((from + k) % 250)));
  drawer.finish();
  expect(strokesNow()).toHaveLength(1);
  expect(store.getState().lasso).toEqual([]);
});
