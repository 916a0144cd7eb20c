import { blend } from "../blend/blend";
import { contrastCurve, NORMAL_GRADE } from "../contrast/contrastCurve";
import { exposedZone, toneStops, type ExposureSettings } from "../exposure/exposure";
import { gateShare, readsEnteringTone, type Gate } from "../gate/gate";
import { placementAtStrength, placementCurve } from "../placement/placementCurve";
import { isHold } from "../placement/strand";
import { keptInOrder, zonesOnShare } from "../zones/keptZones";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE, ZONE_COUNT } from "../zones/zone";
import type { ContrastMaskMove, EdgeBurnMove, ExposureMove, Move, Pass } from "./plan";

/** A map of the zone scale onto itself. Units: zones 0–10 in and out. */
export type ZoneCurve = (zone: number) => number;

/** A move that depends on a place's tone alone, so that it is a curve. */
export type ToneMove = Exclude<Move, ContrastMaskMove | EdgeBurnMove>;
export type TonePass = Pass & { move: ToneMove };

/** Whether tones alone tell what a pass does where its mask is full: nothing is painted, and it does not matter where a place lies. */
export function isTonePass(pass: Pass): pass is TonePass {
  const { move } = pass;
  return move.kind !== "contrast-mask" && move.kind !== "edge-burn" && (move.kind !== "exposure" || move.strokes.length === 0);
}

/** What a move makes of a tone, before strength and blend. */
export function moveCurve(move: ToneMove): ZoneCurve {
  switch (move.kind) {
    case "placement":
      return placementCurve(move.strands);
    case "contrast":
      return contrastCurve(move);
    case "exposure":
      return (zone) => exposedZone(zone, toneStops(move, zone));
  }
}

/**
 * What a whole pass makes of a tone where its mask is full: move, blend, strength, gate, zones switched off. A placement that meets the print
 * normally goes further in its strands at a strength over 1; all else is extrapolated and kept in the scale.
 */
export function passCurve(pass: TonePass): ZoneCurve {
  const gated =
    pass.move.kind === "exposure" && pass.blend === "normal" ? gatedExposure(pass, pass.move) : gatedCurve(freeCurve(pass), pass.gate);
  return pass.zonesOff.length === 0 ? gated : curveWithZonesOff(gated, pass.zonesOff);
}

/** Exposure is let through as light, so that its gate keeps the order of tones longer. */
function gatedExposure({ gate, strength }: TonePass, move: ExposureMove): ZoneCurve {
  const share = (zone: number) => (gate && readsEnteringTone(gate) ? gateShare(gate, zone) : 1);
  return (zone) => exposedZone(zone, strength * share(zone) * toneStops(move, zone));
}

/** A gate that reads the entering tone is a part of the curve, however its mask is limited to hues besides. */
function gatedCurve(curve: ZoneCurve, gate: Gate | null): ZoneCurve {
  if (!gate || !readsEnteringTone(gate)) return curve;
  return (zone) => zone + gateShare(gate, zone) * (curve(zone) - zone);
}

function freeCurve({ move, blend: mode, strength }: TonePass): ZoneCurve {
  if (move.kind === "placement" && mode === "normal") return placementAtStrength(move.strands, strength);
  const curve = moveCurve(move);
  return (zone) => {
    const laid = LAST_ZONE * blend(mode, zone / LAST_ZONE, curve(zone) / LAST_ZONE);
    return Math.min(Math.max(zone + strength * (laid - zone), 0), LAST_ZONE);
  };
}

/** The same with the tones of some zones kept as they come. Where the curve keeps the order of tones, so does this. */
function curveWithZonesOff(curve: ZoneCurve, off: readonly number[]): ZoneCurve {
  const zoneAt = (knot: number) => (knot / TONE_KNOTS) * LAST_ZONE;
  const free = Float64Array.from({ length: TONE_KNOTS + 1 }, (_, knot) => curve(zoneAt(knot)));
  const moved = free.map((to, knot) => zoneAt(knot) + zonesOnShare(zoneAt(knot), off) * (to - zoneAt(knot)));
  const isRising = free.every((to, knot) => knot === 0 || to >= free[knot - 1]!);
  const values = isRising ? keptInOrder(moved, off) : moved;
  return (zone) => {
    const at = (zone / LAST_ZONE) * TONE_KNOTS;
    const knot = Math.min(Math.floor(at), TONE_KNOTS - 1);
    return values[knot]! + (values[knot + 1]! - values[knot]!) * (at - knot);
  };
}

/** Whether anything painted acts. */
function paints({ strokes, dodge, burn }: ExposureSettings): boolean {
  return strokes.some(({ erase, burns, ceiling }) => !erase && ceiling > 0 && (burns ? burn : dodge) > 0);
}

/** Whether a pass leaves every tone as it is, so that it need not be computed. */
export function leavesAll({ on, strength, move, blend: mode, zonesOff }: Pass): boolean {
  if (!on || strength === 0 || zonesOff.length === ZONE_COUNT) return true;
  if (mode !== "normal" && mode !== "darken" && mode !== "lighten") return false;
  switch (move.kind) {
    case "contrast":
      return move.grade === NORMAL_GRADE && move.black === 0 && move.white === LAST_ZONE;
    case "contrast-mask":
      return move.density === 0;
    case "edge-burn":
      return move.stops === 0;
    case "exposure":
      return move.flat === 0 && move.zones.every((stops) => stops === 0) && !paints(move);
    case "placement": {
      const { strands } = move;
      return strands.every(isHold) && strands[0]!.from === 0 && strands[strands.length - 1]!.from === LAST_ZONE;
    }
  }
}
