import type { Envelope } from "./envelope";
import { exposedLuminance } from "../colour/exposedLuminance";
import { atStrength } from "../blend/atStrength";
import { blend } from "../blend/blend";
import { luminanceToTone, toneToLuminance } from "../colour/lstar";
import { LEAST_MOST, orderedStops, rowsOf, type StopsByTone, type StopsRows } from "./orderedStops";
import { changesInOrder } from "../order/heldInOrder";
import { LAST_ZONE } from "../zones/zone";
import { actsOnAll, reachOf } from "./reach";

/**
 * What blended exposure changes in tones, at full mask, for each amount of stops given to a place: held where the gate, zones switched
 * off or a strength over 1 would bring tones out of an order that exposure and blend keep. Undefined where none of these can.
 *
 * Shape   over `knots` + 1 even tones, for stops up to `most` either way.
 * Source  our own: docs/decisions/0012-order.md.
 */
export function blendedRows(pass: Envelope, byTone: StopsByTone, knots: number, most: number): StopsRows | undefined {
  if (pass.blend === "normal" || most < LEAST_MOST || (pass.strength <= 1 && actsOnAll(pass))) return undefined;
  const tones = Float64Array.from({ length: knots + 1 }, (_, k) => k / knots);
  const light = tones.map(toneToLuminance);
  const reach = tones.map((tone) => reachOf(pass, tone * LAST_ZONE));
  const { added, reaching } = orderedStops(knots, byTone);
  let isHeld = false;
  const rows = rowsOf(knots, most, (stops) => {
    const taken = reaching(stops).map((reached, k) => {
      const exposed = luminanceToTone(exposedLuminance(light[k]!, reached + added[k]!, byTone.onPaper ?? false));
      return blend(pass.blend, tones[k]!, exposed);
    });
    const changes = taken.map((tone, k) => reach[k]! * (atStrength(tones[k]!, tone, pass.strength) - tones[k]!));
    const held = changesInOrder(tones, taken, changes);
    isHeld ||= held.some((change, k) => Math.abs(change - changes[k]!) > 1e-12);
    return held;
  });
  return isHeld ? rows : undefined;
}
