import { BLEND_MODES } from "@/core/blend/blend";
import { knotsOf } from "@/core/kernels/pairTable";
import type { StopsRows } from "@/core/steps/orderedStops";
import type { Blended, StopsThrough } from "@/core/steps/step";
import type { BandMachine } from "../machine/bandMachine";

// What steps that give stops have in common: stops that lie in the machine, and how tones take them.

/** What comes of stops: `withTones` adds those given by tone, scaled by the mask or not. */
interface Exposing {
  through: StopsThrough;
  blended: Blended | undefined;
  onPaper: boolean;
  byMask: boolean;
  withTones?(byMask: boolean): void;
}

/** tone, stops → tone, exposed by them and blended, as far as shares and the mask let it through. */
export function expose(machine: BandMachine, { through, blended, onPaper, byMask, withTones }: Exposing): void {
  const { plane: p, padded: n, run } = machine;
  if (blended?.rows) return changeByRows(machine, blended.rows, byMask);
  const scales = byMask && !blended;
  if (scales) run.multiply(p.stops, p.mask, p.stops, n);
  passThrough(machine, through);
  withTones?.(scales);
  if (!blended) return run.exposeBy(p.tone, p.stops, p.tone, n, Number(onPaper));
  // A blend changes tones by itself, so what is to stay is mixed back in afterwards.
  run.exposeBy(p.tone, p.stops, p.above, n, Number(onPaper));
  run.blendPlanes(p.tone, p.above, p.above, n, BLEND_MODES.indexOf(blended.mode));
  run.lookUp(p.tone, p.stops, n, machine.tables.at(blended.share), knotsOf(blended.share));
  if (byMask) run.multiply(p.stops, p.mask, p.stops, n);
  run.mixBy(p.tone, p.above, p.stops, p.tone, n);
}

/** stops → the stops that reach each tone. */
function passThrough({ plane: { stops, tone }, padded: n, run, tables, stopsRows }: BandMachine, { share, rows }: StopsThrough): void {
  if (rows) run.throughRows(stops, tone, n, stopsRows.at(rows.tables), rows.knots, rows.side, rows.most);
  else if (share) run.scaleLookedUp(stops, tone, n, tables.at(share), knotsOf(share));
}

/** tone → tone and what rows say of its stops. */
function changeByRows(machine: BandMachine, rows: StopsRows, byMask: boolean): void {
  const { plane, padded: n, run } = machine;
  passThrough(machine, { share: undefined, rows });
  if (byMask) run.multiply(plane.stops, plane.mask, plane.stops, n);
  run.add(plane.tone, plane.stops, plane.tone, n);
}
