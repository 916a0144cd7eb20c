import { ExposureStroke, type StrokeStops } from "../../steps/placedStops";
import { exposedLuminance } from "../../colour/exposedLuminance";

import { toneToLuminance, luminanceToTone } from "../../colour/lstar";
import { LAST_ZONE } from "../../zones/zone";
import type { Stops, Zone } from "../../units";

/** Light and dark laid on by hand, over the whole, and zone by zone. */
export interface ExposureSettings extends StrokeStops {
  /** Stops for each zone, 0 to X. */
  zones: Stops[];
  /** Whether the tones at both ends of the scale are left nearly alone. */
  endsHeld: boolean;
}

export const MOST_CEILING = 3;
export const MOST_STOPS = 4;
/** Softening, in long edges. */
export const MOST_MAP_SOFTEN = 0.05;
/** Finer than this a map is not softened: no hand paints so finely, and the cells it is blurred on would be coarser. */
export const LEAST_MAP_SOFTEN = 0.002;
export const LEAST_LIMIT = 1 / 12;
export const MOST_LIMIT = 3;

/** Protected ends begin this far from black and white, in zones. */
const END_REACH = 1.5;

/**
 * How much of the exposure a tone gets when the ends are protected: none at black and white, all from a zone and a half inside.
 *
 * Units   zones in, 0–1 out.
 */
export function endShare(zone: Zone): number {
  const inside = Math.min(Math.max(Math.min(zone, LAST_ZONE - zone) / END_REACH, 0), 1);
  return 0.5 - 0.5 * Math.cos(Math.PI * inside);
}

/** Stops a tone gets by its zone: the amounts of its neighbours, each by how far it is theirs. Units: zones in. */
export function zoneStops(amounts: readonly Stops[], zone: Zone): Stops {
  const z = Math.min(Math.max(zone, 0), LAST_ZONE);
  const lower = Math.min(Math.floor(z), LAST_ZONE - 1);
  const share = 0.5 - 0.5 * Math.cos(Math.PI * (z - lower)); // single zones are raised cosines: they sum to 1
  return (1 - share) * amounts[lower]! + share * amounts[lower + 1]!;
}

/** Stops a tone gets besides what is painted. Units: zones in. */
export function toneStops({ flat, zones, endsHeld }: ExposureSettings, zone: Zone): number {
  return (endsHeld ? endShare(zone) : 1) * (flat + zoneStops(zones, zone));
}

/**
 * A tone exposed: Y' = kY ∕ (1 + (k − 1)Y), k = 2^stops. It has slope k in the deepest tones, reaches neither black nor
 * white from inside, keeps the order of tones, and is undone exactly by −stops.
 *
 * Units   zones in and out.
 */
export function exposedZone(zone: Zone, stops: Stops): Zone {
  return LAST_ZONE * luminanceToTone(exposedLuminance(toneToLuminance(zone / LAST_ZONE), stops, false));
}

/** Stops held at a limit: half of it is left as it is, beyond that they approach it and never pass it. */
export function limitedStops(stops: Stops, limit: Stops): Stops {
  const [half, size] = [limit / 2, Math.abs(stops)];
  if (size <= half) return stops;
  return Math.sign(stops) * (limit - half * Math.exp(-(size - half) / half));
}

const ORDER_STEPS = 500;

/** Whether tones come out in the order they come in by the stops of zones alone, at the strength given. */
export function keepsOrder(settings: ExposureSettings, strength: number): boolean {
  let before = -1;
  for (let i = 0; i <= ORDER_STEPS; i++) {
    const zone = (i / ORDER_STEPS) * LAST_ZONE;
    const exposed = exposedZone(zone, strength * toneStops({ ...settings, flat: 0 }, zone));
    if (exposed < before - 1e-9) return false;
    before = exposed;
  }
  return true;
}

const BISECTIONS = 20;

/**
 * The amount of one zone brought as near to what is wanted as the order of tones allows: where neighbouring amounts would
 * reverse it, it is held.
 */
export function withZoneStops(settings: ExposureSettings, zone: Zone, wanted: number, strength: number): ExposureSettings {
  const bounded = Math.min(Math.max(wanted, -MOST_STOPS), MOST_STOPS);
  const at = (stops: Stops) => ({ ...settings, zones: settings.zones.with(zone, stops) });
  if (keepsOrder(at(bounded), strength)) return at(bounded);
  let [held, refused] = [settings.zones[zone]!, bounded];
  if (!keepsOrder(settings, strength)) return settings;
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (held + refused) / 2;
    if (keepsOrder(at(middle), strength)) held = middle;
    else refused = middle;
  }
  return at(held);
}

/** The strokes a map of lights, or of darks, is laid with: its own, and those that erase. */
export function strokesOf({ strokes }: Pick<ExposureSettings, "strokes">, burns: boolean): ExposureStroke[] {
  return strokes.filter((stroke) => stroke.erase || stroke.burns === burns);
}

/** Where a stroke leads on its map, in stops. */
export function exposureGoal({ erase, ceiling }: ExposureStroke): number {
  return erase ? 0 : ceiling;
}
