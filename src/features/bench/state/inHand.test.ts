import { expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { openGate } from "@/core/gate/gate";
import { createBenchStore, type BenchStart, type BenchStore } from "./benchStore";
import type { SaveQueue } from "./saveQueue";
import { REGION_TOOLS, type Tool } from "../tools/tools";

const stroke = {
  radius: 0.05,
  hardness: 0,
  flow: 0.5,
  pressure: "none",
  erase: false,
  burns: false,
  ceiling: 1,
  path: packPath([{ x: 0.5, y: 0.3, pressure: 1 }]),
} as const;
const exposure = (id: string, strokes: number) => {
  const pass = restingPass("exposure", id, id);
  return { ...pass, region: "r", move: { ...pass.move, strokes: Array.from({ length: strokes }, () => stroke) } } as Plan["passes"][number];
};
const oval = {
  id: "o",
  combine: "add",
  kind: "oval",
  x: 0.5,
  y: 0.3,
  across: 0.1,
  down: 0.1,
  turnDeg: 0,
  inner: 0.02,
  outer: 0.02,
} as const;

function bench(): BenchStore {
  const plan: Plan = {
    ...defaultPlan(),
    regions: [{ ...emptyRegion("r", "R"), shapes: [oval] }],
    passes: [exposure("a", 3), exposure("b", 1), { ...restingPass("contrast", "c", "C"), region: "r", gate: openGate() }],
  };
  const start = {
    print: { id: "p", head: "h", pins: [] },
    plan,
    revisions: [],
    prepared: { width: 300, height: 200 },
  } as unknown as BenchStart;
  return createBenchStore(start, () => ({ add() {}, isEmpty: true }) as unknown as SaveQueue);
}
const toolOf = (store: BenchStore) => store.getState().tool;

test("whoever changes the step, a tool without use there is put down, one with use stays", () => {
  const store = bench();
  const goes: [string, () => void][] = [
    ["chosen", () => store.getState().chooseStep({ stage: "pass", id: "c" })],
    ["set", () => store.getState().chooseStep({ stage: "mix" })],
    ["its pass deleted", () => store.getState().adjust((plan) => ({ ...plan, passes: plan.passes.filter(({ id }) => id !== "a") }))],
  ];
  for (const [how, go] of goes) {
    store.getState().chooseStep({ stage: "pass", id: "a" });
    store.getState().takeUp("dodge");
    expect(toolOf(store)).toBe("dodge");
    go();
    expect([how, toolOf(store)]).toEqual([how, "read"]);
  }
  expect(store.getState().step).toEqual({ stage: "mix" });
  store.getState().takeUp("pin");
  store.getState().chooseStep({ stage: "pass", id: "b" });
  expect(toolOf(store)).toBe("pin");
  store.getState().takeUp("burn");
  store.getState().set({ reading: undefined });
  expect(toolOf(store)).toBe("burn");
});

test("a tool that has no use is not taken up, and it is said why", () => {
  const store = bench();
  store.getState().chooseStep({ stage: "pass", id: "c" });
  for (const tool of ["dodge", "burn", "pick-strokes", "clear-loop"] as Tool[]) {
    store.getState().takeUp(tool);
    expect(toolOf(store)).toBe("read");
    expect(store.getState().failure).toMatch(/exposure pass/);
  }
  store.getState().takeUp("repair");
  expect(toolOf(store)).toBe("repair");
  store.getState().adjust((plan) => ({ ...plan, passes: plan.passes.map((pass) => ({ ...pass, gate: null })) }));
  expect(toolOf(store)).toBe("read");
  store.getState().chooseStep({ stage: "mix" });
  for (const tool of [...REGION_TOOLS, "pick-tones", "pick-hue", "repair"] as Tool[]) {
    store.getState().takeUp(tool);
    expect(toolOf(store)).toBe("read");
  }
});

test("what was chosen in a step is let go with it; picks of what is gone go too", () => {
  const store = bench();
  const choose = () => {
    store.getState().chooseStep({ stage: "pass", id: "a" });
    store.getState().set({ pickedStrokes: [2], chosenShape: "o", chosenStrands: [1] });
  };
  choose();
  expect(store.getState()).toMatchObject({ pickedStrokes: [2], chosenShape: "o", chosenStrands: [1] });
  store.getState().set({ drawing: { ...store.getState().drawing, corners: [{ x: 0, y: 0, smooth: true }] } });
  store.getState().chooseStep({ stage: "pass", id: "b" });
  expect(store.getState()).toMatchObject({ pickedStrokes: [], chosenShape: undefined, chosenStrands: [] });
  expect(store.getState().drawing.corners).toEqual([]);
  choose();
  store.getState().adjust((plan) => ({ ...plan, passes: [exposure("a", 2), ...plan.passes.slice(1)] }));
  expect(store.getState().pickedStrokes).toEqual([]);
  expect(store.getState().chosenShape).toBe("o");
  store.getState().adjust((plan) => ({ ...plan, regions: [emptyRegion("r", "R")] }));
  expect(store.getState().chosenShape).toBeUndefined();
});

test("who changes the print sees the print, whatever it was compared with", () => {
  const store = bench();
  const { set, adjust } = store.getState();
  set({ before: "mix" });
  store.getState().chooseStep({ stage: "pass", id: "b" });
  expect(store.getState().before).toBe("mix");
  adjust((plan) => ({ ...plan, passes: plan.passes.map((pass) => ({ ...pass, strength: 0.5 })) }));
  expect(store.getState().before).toBeUndefined();
});
