import { restingExposure } from "@/core/passes/exposure/fields";
import { packPath, type Stroke } from "@/core/brush/stroke";
import { openGate } from "@/core/gate/gate";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import type { BrushShape, Region } from "@/core/region/region";

// A plan whose passes act through brushed regions.

export const brushed = (id: string, strokes: Stroke[]): BrushShape => ({
  id,
  combine: "add",
  kind: "brush",
  beneath: true,
  x: 0,
  y: 0,
  strokes,
});
export const region = (id: string, shape: BrushShape, others: Partial<Region>): Region => ({
  id,
  name: id,
  shapes: [shape],
  soften: 0,
  fit: 0,
  invert: false,
  density: 1,
  ...others,
});
const strokeAt = (x: number): Stroke => ({
  radius: 0.12,
  hardness: 0.5,
  flow: 1,
  pressure: "none",
  erase: false,
  path: packPath([
    { x, y: 0.1, pressure: 1 },
    { x, y: 0.5, pressure: 1 },
  ]),
});

/** Two stops less on the right, one more in a set on the left, both through brushed regions. */
export function burnOnTheRight(looks: Partial<Region>): Plan {
  const plan = defaultPlan();
  plan.regions = [region("left", brushed("l", [strokeAt(0.2)]), looks), region("right", brushed("r", [strokeAt(0.8)]), looks)];
  plan.sets = [{ id: "set", name: "Set", on: true, strength: 1, region: "left", gate: null }];
  const exposure = restingPass("exposure", "set's", "Dodge");
  const flat = (stops: number) => ({ kind: "exposure", ...restingExposure(), flat: stops }) as const;
  plan.passes = [
    { ...exposure, set: "set", move: flat(1) },
    { ...exposure, id: "burn", region: "right", gate: { ...openGate(), repair: [strokeAt(0.5)] }, move: flat(-2) },
  ];
  return plan;
}
