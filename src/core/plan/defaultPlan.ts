import { restingEdgeBurn } from "../passes/edge-burn/edgeBurn";
import { restingExposure } from "../passes/exposure/exposure";
import { LUMINANCE_WEIGHTS } from "../mix/weights";
import { RESTING_STRANDS } from "../passes/placement/strand";
import { NORMAL_GRADE } from "../passes/contrast/contrastCurve";
import { LAST_ZONE } from "../zones/zone";
import { PLAN_VERSION, type Move, type MoveKind, type Pass, type Plan } from "./plan";

/** What a new pass of each kind begins with: nothing moved yet, but for a contrast mask, which begins thin, and an edge burn, which begins faint. */
export function restingMove(kind: MoveKind): Move {
  switch (kind) {
    case "placement":
      return { kind, strands: RESTING_STRANDS.map((strand) => ({ ...strand })) };
    case "exposure":
      return { kind, ...restingExposure() };
    case "edge-burn":
      return { kind, ...restingEdgeBurn() };
    case "contrast":
      return { kind, around: 5, grade: NORMAL_GRADE, black: 0, white: LAST_ZONE };
    case "contrast-mask":
      return { kind, radius: 0.04, density: 0.25, edges: true };
  }
}

/** A new pass on the whole picture and all tones, tied into no set. */
export function restingPass(kind: MoveKind, id: string, name: string): Pass {
  return { id, name, on: true, strength: 1, blend: "normal", region: null, gate: null, zonesOff: [], set: null, move: restingMove(kind) };
}

/** What a new print starts from: plain luminance, and one placement that changes nothing yet. */
export function defaultPlan(): Plan {
  return {
    version: PLAN_VERSION,
    mix: { weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] },
    regions: [],
    sets: [],
    passes: [restingPass("placement", "first", "Place the tones")],
  };
}
