import type { Envelope } from "./envelope";
import { gateShare, readsEnteringTone } from "../gate/gate";
import { pairTable } from "../kernels/pairTable";
import { zonesOnShare } from "../zones/keptZones";
import { LAST_ZONE } from "../zones/zone";
import { SOFT_KNOTS } from "./knots";
import type { Zone } from "../units";

/** How far a pass acts on a tone by its gate, where that is a part of the curve, and by zones switched off; 0–1. Units: zones. */
export function reachOf({ gate, zonesOff }: Pick<Envelope, "gate" | "zonesOff">, zone: Zone): number {
  const on = zonesOff.length > 0 ? zonesOnShare(zone, zonesOff) : 1;
  return gate && readsEnteringTone(gate) ? on * gateShare(gate, zone) : on;
}

/** Whether that is 1 everywhere. */
export function actsOnAll({ gate, zonesOff }: Pick<Envelope, "gate" | "zonesOff">): boolean {
  return zonesOff.length === 0 && !(gate && readsEnteringTone(gate));
}

/** How far a pass lets each tone that enters it through, over tone 0–1; undefined where all are. */
export function reachTable(pass: Pick<Envelope, "gate" | "zonesOff">): Float32Array | undefined {
  return actsOnAll(pass) ? undefined : pairTable(SOFT_KNOTS, (t) => reachOf(pass, t * LAST_ZONE));
}
