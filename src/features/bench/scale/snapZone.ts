import type { Zone } from "@/core/units";

/** How near a hand must come to a whole, half or third of a zone to be taken there, in zones. */
const SNAP_REACH = 0.06;

/** The nearest whole, half or third of a zone within reach, else the place itself. */
export function snapZone(zone: Zone): Zone {
  const sixth = Math.round(zone * 6);
  if (sixth % 6 === 1 || sixth % 6 === 5) return zone; // sixths themselves are no resting places
  return Math.abs(sixth / 6 - zone) <= SNAP_REACH ? sixth / 6 : zone;
}
