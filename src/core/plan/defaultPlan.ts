import type { MoveKind } from "../passes/moves";
import type { Pass } from "../passes/pass";
import { WHOLE_FRAME } from "../frame/frame";
import type { MixLook } from "../mix/mixLook";
import { LUMINANCE_WEIGHTS } from "../mix/weights";
import { restingMove } from "../passes/passKinds";
import { PLAN_VERSION, type Plan } from "./plan";

/** A new pass on the whole picture and all tones, tied into no set. */
export function restingPass(kind: MoveKind, id: string, name: string): Pass {
  return { id, name, on: true, strength: 1, blend: "normal", region: null, gate: null, zonesOff: [], set: null, move: restingMove(kind) };
}

/** Formats that keep colour more coarsely than light. */
const COARSE_IN_COLOUR: readonly string[] = ["JPEG", "WebP", "AVIF"];

/** How far colour is cleaned in a new print of a picture of a format. */
export function restingClean(format?: string): number {
  return format && COARSE_IN_COLOUR.includes(format) ? 1 : 0;
}

/** Plain luminance. */
export function restingMix(): MixLook {
  return { weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] };
}

/** What a new print starts from: plain luminance, and one placement that changes nothing yet. */
export function defaultPlan(format?: string): Plan {
  return {
    version: PLAN_VERSION,
    frame: { ...WHOLE_FRAME },
    spots: [],
    mix: { clean: restingClean(format), strength: 1, weightsOn: true, ...restingMix() },
    regions: [],
    sets: [],
    passes: [restingPass("placement", "first", "Place the tones")],
  };
}
