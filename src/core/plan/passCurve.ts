import { blend } from "../blend/blend";
import { contrastCurve, NORMAL_GRADE } from "../contrast/contrastCurve";
import { placementAtStrength, placementCurve } from "../placement/placementCurve";
import { isHold } from "../placement/strand";
import { LAST_ZONE } from "../zones/zone";
import type { Move, Pass } from "./plan";

/** A map of the zone scale onto itself. Units: zones 0–10 in and out. */
export type ZoneCurve = (zone: number) => number;

/** What a move makes of a tone, before strength and blend. */
export function moveCurve(move: Move): ZoneCurve {
  return move.kind === "placement" ? placementCurve(move.strands) : contrastCurve(move);
}

/**
 * What a whole pass makes of a tone: move, blend, strength. A placement that meets the print
 * normally goes further in its strands at a strength over 1; all else is extrapolated and kept in the scale.
 */
export function passCurve({ move, blend: mode, strength }: Pass): ZoneCurve {
  if (move.kind === "placement" && mode === "normal") return placementAtStrength(move.strands, strength);
  const curve = moveCurve(move);
  return (zone) => {
    const laid = LAST_ZONE * blend(mode, zone / LAST_ZONE, curve(zone) / LAST_ZONE);
    return Math.min(Math.max(zone + strength * (laid - zone), 0), LAST_ZONE);
  };
}

/** Whether a pass leaves every tone as it is, so that it need not be computed. */
export function leavesAll({ on, strength, move, blend: mode }: Pass): boolean {
  if (!on || strength === 0) return true;
  if (mode !== "normal" && mode !== "darken" && mode !== "lighten") return false;
  if (move.kind === "contrast") return move.grade === NORMAL_GRADE && move.black === 0 && move.white === LAST_ZONE;
  const { strands } = move;
  return strands.every(isHold) && strands[0]!.from === 0 && strands[strands.length - 1]!.from === LAST_ZONE;
}
