import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { CalmPlan } from "./calmPlan";
import { createBenchStore, type BenchStart } from "./benchStore";
import type { SaveQueue } from "./saveQueue";

beforeEach(() => void vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "performance"] }));
afterEach(() => void vi.useRealTimers());

function bench() {
  const start = { prepared: { width: 3, height: 2 }, print: { id: "p", head: "0", pins: [] }, revisions: [], plan: defaultPlan() };
  return createBenchStore(start as unknown as BenchStart, () => ({ add() {}, isEmpty: true }) as unknown as SaveQueue);
}

/** A bench whose red weight a hand moves, and every weight that a calm plan of it showed. */
function followed(isCalm: () => boolean) {
  const store = bench();
  const calm = new CalmPlan(store, isCalm);
  const shown: number[] = [];
  const stop = calm.subscribe(() => shown.push(calm.get().mix.weights.red));
  const move = (red: number) =>
    store.getState().adjust((plan) => ({ ...plan, mix: { ...plan.mix, weights: { ...plan.mix.weights, red } } }));
  return { store, calm, shown, stop, move };
}

test("while a hand moves the plan follows a few times a second, and ends where the hand does", () => {
  const { shown, move, calm } = followed(() => true);
  for (let k = 1; k <= 60; k++) {
    move(k);
    vi.advanceTimersByTime(16);
  }
  expect(shown.length).toBeGreaterThan(2);
  expect(shown.length).toBeLessThan(8);
  vi.advanceTimersByTime(1000);
  expect(calm.get().mix.weights.red).toBe(60);
  expect(shown.at(-1)).toBe(60);
});

test("a step of the history is there at once, and so is everything while no hand is elsewhere", () => {
  const one = followed(() => true);
  vi.advanceTimersByTime(1000);
  one.move(1);
  one.move(2);
  expect(one.shown).toEqual([1]);
  one.store.getState().commit("moved");
  expect(one.shown).toEqual([1, 2]);
  vi.advanceTimersByTime(1000);
  expect(one.shown).toEqual([1, 2]);

  const other = followed(() => false);
  for (const red of [1, 2, 3]) other.move(red);
  expect(other.shown).toEqual([1, 2, 3]);
});

test("nobody is told who has stopped, and who begins later finds the plan as it is", () => {
  const { shown, move, stop, calm } = followed(() => true);
  move(1);
  move(2);
  stop();
  vi.advanceTimersByTime(1000);
  move(3);
  expect(shown).toEqual([]);
  calm.subscribe(() => undefined);
  expect(calm.get().mix.weights.red).toBe(3);
});
