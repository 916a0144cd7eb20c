import type { Zone } from "../units";

/** Beyond the border of a zone that is switched off, a pass comes in over this much, in zones. */
const SHOULDER = 0.5;

/**
 * How far a pass acts on a tone when some zones are switched off: not at all on the tones those own, fully from half a
 * zone beyond, smoothly between.
 *
 * Units   zones 0–10 in, 0–1 out. `off` names whole zones 0–10.
 */
export function zonesOnShare(zone: Zone, off: readonly number[]): number {
  const away = Math.min(...off.map((owner) => Math.abs(zone - owner) - 0.5), SHOULDER);
  if (away <= 0) return 0;
  return 0.5 - 0.5 * Math.cos((Math.PI * away) / SHOULDER);
}
