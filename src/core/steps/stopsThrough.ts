import type { Envelope } from "./envelope";
import { pairTable } from "../kernels/pairTable";
import { LAST_ZONE } from "../zones/zone";
import { blendedRows } from "./blendedRows";
import { SOFT_KNOTS } from "./knots";
import { stopsRows, type StopsByTone } from "./orderedStops";
import { actsOnAll, reachOf } from "./reach";
import type { Blended, StopsThrough } from "./step";

/** All stops reach all tones. */
export const ALL: StopsThrough = { share: undefined, rows: undefined };
/** The same as stops by tone. */
export const REACHES_ALL: StopsByTone = { share: () => 1 };

/** How much of the stops given to a place reaches its tones, `most` of them either way. */
export function through(byTone: StopsByTone, most: number): StopsThrough {
  const rows = stopsRows(SOFT_KNOTS, byTone, most);
  return rows ? { share: undefined, rows } : { share: pairTable(SOFT_KNOTS, byTone.share), rows };
}

/** Through a pass's gate and past its zones switched off. */
export function throughReach(pass: Envelope, most: number, onPaper = false): StopsThrough {
  return actsOnAll(pass) ? ALL : through({ share: (t) => reachOf(pass, t * LAST_ZONE), onPaper }, most);
}

/** How what a pass makes meets what is beneath; undefined where it meets it normally. */
export function blended(pass: Envelope, byTone: StopsByTone, most: number): Blended | undefined {
  if (pass.blend === "normal") return undefined;
  const share = pairTable(SOFT_KNOTS, (t) => pass.strength * reachOf(pass, t * LAST_ZONE));
  return { mode: pass.blend, share, rows: blendedRows(pass, byTone, SOFT_KNOTS, most) };
}
