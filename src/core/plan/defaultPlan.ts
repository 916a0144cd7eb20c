import { LUMINANCE_WEIGHTS } from "../mix/weights";
import { RESTING_STRANDS } from "../placement/strand";
import { PLAN_VERSION, type Pass, type Plan } from "./plan";

/** A pass that changes nothing yet. */
export function restingPlacement(id: string, name: string): Pass {
  return {
    id,
    name,
    on: true,
    strength: 1,
    move: { kind: "placement", strands: RESTING_STRANDS.map((strand) => ({ ...strand })) },
  };
}

/** What a new print starts from: plain luminance, and one placement that changes nothing yet. */
export function defaultPlan(): Plan {
  return {
    version: PLAN_VERSION,
    mix: { weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] },
    passes: [restingPlacement("first", "Place the tones")],
  };
}
