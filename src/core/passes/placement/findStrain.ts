import { LAST_ZONE } from "../../zones/zone";
import type { PlacementCurve } from "./placementCurve";
import type { Zone } from "../../units";

/** Slopes below this draw tones so close together that the eye loses them. */
export const MERGING_SLOPE = 0.25;
/** Slopes above this pull tones so far apart that gradations break up. */
export const TEARING_SLOPE = 3;

/** A stretch of the scale, as tones fall, in which a placement strains them. Units: zones. */
export interface Strain {
  kind: "merging" | "tearing";
  from: Zone;
  to: Zone;
}

const STEP = 0.05;
/** Shorter stretches are not worth a word. */
const LEAST_STRETCH = 0.15;

/** The stretches in which tones merge (slope below ¼) or are torn apart (slope above 3), in order. */
export function findStrain(curve: PlacementCurve): Strain[] {
  const found: Strain[] = [];
  for (let i = 0; i < Math.round(LAST_ZONE / STEP); i++) {
    const from = i * STEP;
    const slope = (curve(from + STEP) - curve(from)) / STEP;
    const kind = slope < MERGING_SLOPE ? "merging" : slope > TEARING_SLOPE ? "tearing" : undefined;
    if (!kind) continue;
    const last = found[found.length - 1];
    if (last?.kind === kind && Math.abs(last.to - from) < STEP / 2) last.to = from + STEP;
    else found.push({ kind, from, to: from + STEP });
  }
  return found.filter((strain) => strain.to - strain.from >= LEAST_STRETCH - STEP / 2);
}
