import { expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { PlanReceiver, PlanSender } from "./wirePlan";

const stroke = (x: number) => ({
  radius: 0.1,
  hardness: 0.5,
  flow: 1,
  pressure: "none" as const,
  erase: false,
  path: packPath([{ x, y: 0.5, pressure: 1 }]),
});
const planOf = (strokes: ReturnType<typeof stroke>[]): Plan => ({
  ...defaultPlan(),
  regions: [
    { ...emptyRegion("region", "Region"), shapes: [{ id: "area", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes }] },
  ],
});

test("plans arrive as they were sent, and a stroke goes but once", () => {
  const [sender, receiver] = [new PlanSender(), new PlanReceiver()];
  const send = (plan: Plan) => {
    const wire = structuredClone(sender.pack(plan));
    const [shape] = (wire.packed as { regions: { shapes: { strokes: { fresh: unknown[] } }[] }[] }).regions[0]!.shapes;
    return { arrived: receiver.unpack(wire), fresh: shape!.strokes.fresh.length };
  };
  const strokes = Array.from({ length: 50 }, (_, i) => stroke(i / 50));
  expect(send(planOf(strokes))).toEqual({ arrived: planOf(strokes), fresh: 50 });
  expect(send(planOf([...strokes, stroke(0.99)]))).toMatchObject({ fresh: 1 });
  const fewer = planOf(strokes.slice(10, 30));
  expect(send(fewer)).toEqual({ arrived: fewer, fresh: 0 });
  // The same stroke arrives as the same object, so that it is told from others at once.
  const [a, b] = [send(fewer).arrived, send(fewer).arrived];
  const strokesOf = (plan: Plan) => (plan.regions[0]!.shapes[0]!.kind === "brush" ? plan.regions[0]!.shapes[0]!.strokes : []);
  expect(strokesOf(a)[3]).toBe(strokesOf(b)[3]);
});

test("a plan without regions goes as it is", () => {
  const [sender, receiver] = [new PlanSender(), new PlanReceiver()];
  expect(receiver.unpack(structuredClone(sender.pack(defaultPlan())))).toEqual(defaultPlan());
});
