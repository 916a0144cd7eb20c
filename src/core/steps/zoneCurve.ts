import type { Envelope } from "./envelope";
import { atStrength } from "../blend/atStrength";
import { blend } from "../blend/blend";
import { pairTable } from "../kernels/pairTable";
import { changesInOrder } from "../order/heldInOrder";
import { TONE_KNOTS } from "../zones/toneKnots";
import { LAST_ZONE } from "../zones/zone";
import { actsOnAll, reachOf } from "./reach";
import type { TableStep } from "./step";
import type { Zone } from "../units";

/** A map of the zone scale onto itself. Units: zones 0–10 in and out. */
export type ZoneCurve = (zone: Zone) => Zone;

/** A step that adds to each tone what a curve makes of it. */
export function tableStep(curve: ZoneCurve): TableStep {
  return { kind: "table", table: pairTable(TONE_KNOTS, (t) => curve(t * LAST_ZONE) / LAST_ZONE - t) };
}

/**
 * What a pass makes of tones whose move is a curve: blended with what was there, as far as its strength goes, extrapolated softly where the
 * scale ends; through its gate and past zones switched off, which hold tones where the order would change.
 */
export function passingCurve(pass: Envelope, curve: ZoneCurve): ZoneCurve {
  const laid = (zone: Zone) => LAST_ZONE * blend(pass.blend, zone / LAST_ZONE, curve(zone) / LAST_ZONE);
  const further = (zone: Zone) => LAST_ZONE * atStrength(zone / LAST_ZONE, laid(zone) / LAST_ZONE, pass.strength);
  if (pass.strength <= 1 && actsOnAll(pass)) return further;
  return heldCurve(laid, (zone) => zone + reachOf(pass, zone) * (further(zone) - zone));
}

/** What is made of a curve, held where it would not keep an order that the curve keeps. */
export function heldCurve(curve: ZoneCurve, made: ZoneCurve): ZoneCurve {
  const zones = Float64Array.from({ length: TONE_KNOTS + 1 }, (_, knot) => (knot / TONE_KNOTS) * LAST_ZONE);
  const changes = zones.map((zone) => made(zone) - zone);
  const held = changesInOrder(zones, zones.map(curve), changes);
  const isHeld = held.some((change, k) => Math.abs(change - changes[k]!) > 1e-12);
  return isHeld ? between(held.map((change, k) => zones[k]! + change)) : made;
}

/** Values at the knots of tone tables, read between them. Units: zones in. */
export function between(values: Float64Array): (zone: Zone) => number {
  return (zone) => {
    const at = Math.min(Math.max(zone / LAST_ZONE, 0), 1) * TONE_KNOTS;
    const knot = Math.min(Math.floor(at), TONE_KNOTS - 1);
    return values[knot]! + (values[knot + 1]! - values[knot]!) * (at - knot);
  };
}
