import { atStrength } from "../blend/atStrength";
import { blend } from "../blend/blend";
import { contrastCurve, NORMAL_GRADE } from "../passes/contrast/contrastCurve";
import { endShare, exposedZone, zoneStops, type ExposureSettings } from "../passes/exposure/exposure";
import { orderedStops, type StopsByTone } from "../steps/orderedStops";
import { gateShare, readsEnteringTone } from "../gate/gate";
import { changesInOrder } from "../order/heldInOrder";
import { placementAtStrength, placementCurve } from "../passes/placement/placementCurve";
import { isHold } from "../passes/placement/strand";
import { zonesOnShare } from "../zones/keptZones";
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
function moveCurve(pass: TonePass): ZoneCurve {
  const { move } = pass;
  switch (move.kind) {
    case "placement":
      return placementCurve(move.strands);
    case "contrast":
      return contrastCurve(move);
    case "exposure":
      return exposureCurve(pass, move, false);
  }
}

/**
 * What a whole pass makes of a tone where its mask is full: move, blend, strength, gate, zones switched off. A placement that meets the print
 * normally goes further in its strands at a strength over 1; all else is extrapolated, softly where the scale ends. Gates and zones switched off hold tones where
 * the order would change.
 */
export function passCurve(pass: TonePass): ZoneCurve {
  if (pass.move.kind === "exposure" && pass.blend === "normal") return exposureCurve(pass, pass.move, true);
  if (pass.move.kind === "placement" && pass.blend === "normal") {
    const placed = placementAtStrength(pass.move.strands, pass.strength);
    return actsOnAll(pass) ? placed : heldCurve(placed, (zone) => zone + reachOf(pass, zone) * (placed(zone) - zone));
  }
  const laid = laidCurve(pass);
  const further = (zone: number) => LAST_ZONE * atStrength(zone / LAST_ZONE, laid(zone) / LAST_ZONE, pass.strength);
  if (pass.strength <= 1 && actsOnAll(pass)) return further;
  return heldCurve(laid, (zone) => zone + reachOf(pass, zone) * (further(zone) - zone));
}

/** How far a pass acts on a tone by its gate, where that is a part of the curve, and by zones switched off; 0–1. Units: zones. */
export function reachOf({ gate, zonesOff }: Pick<Pass, "gate" | "zonesOff">, zone: number): number {
  const on = zonesOff.length > 0 ? zonesOnShare(zone, zonesOff) : 1;
  return gate && readsEnteringTone(gate) ? on * gateShare(gate, zone) : on;
}

/** Whether that is 1 everywhere. */
export function actsOnAll({ gate, zonesOff }: Pick<Pass, "gate" | "zonesOff">): boolean {
  return zonesOff.length === 0 && !(gate && readsEnteringTone(gate));
}

/** The stops an exposure gives by tone, besides those painted and flat; at its strength. */
export function stopsByTone(pass: Pass, move: ExposureMove, isThrough: boolean): StopsByTone {
  const { endsHeld, zones } = move;
  const share = (tone: number) => {
    const zone = tone * LAST_ZONE;
    return (isThrough ? reachOf(pass, zone) : 1) * (endsHeld ? endShare(zone) : 1);
  };
  const strength = isThrough ? pass.strength : 1;
  const added = zones.every((stops) => stops === 0)
    ? undefined
    : (tone: number) => strength * share(tone) * zoneStops(zones, tone * LAST_ZONE);
  return { share, added };
}

/** Exposure is let through as light: with the gate, the zones switched off and the strength of its pass, or before them. */
function exposureCurve(pass: TonePass, move: ExposureMove, isThrough: boolean): ZoneCurve {
  const { added, reaching } = orderedStops(TONE_KNOTS, stopsByTone(pass, move, isThrough));
  const stops = reaching((isThrough ? pass.strength : 1) * move.flat);
  const total = between(stops.map((reached, k) => reached + added[k]!));
  return (zone) => exposedZone(zone, total(zone));
}

/** What a move makes of a tone laid on what was there. */
function laidCurve(pass: TonePass): ZoneCurve {
  const curve = moveCurve(pass);
  return (zone) => LAST_ZONE * blend(pass.blend, zone / LAST_ZONE, curve(zone) / LAST_ZONE);
}

/** What is made of a curve, held where it would not keep an order that the curve keeps. */
function heldCurve(curve: ZoneCurve, made: ZoneCurve): ZoneCurve {
  const zones = Float64Array.from({ length: TONE_KNOTS + 1 }, (_, knot) => (knot / TONE_KNOTS) * LAST_ZONE);
  const changes = zones.map((zone) => made(zone) - zone);
  const held = changesInOrder(zones, zones.map(curve), changes);
  const isHeld = held.some((change, k) => Math.abs(change - changes[k]!) > 1e-12);
  return isHeld ? between(held.map((change, k) => zones[k]! + change)) : made;
}

/** Values at the knots of tone tables, read between them. Units: zones in. */
function between(values: Float64Array): ZoneCurve {
  return (zone) => {
    const at = Math.min(Math.max(zone / LAST_ZONE, 0), 1) * TONE_KNOTS;
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
