import { BLEND_MODES } from "@/core/blend/blend";
import { knotsOf } from "@/core/kernels/pairTable";
import type { Meeting } from "@/core/steps/step";
import type { BandMachine } from "../machine/bandMachine";

/** tone → what lies in above, so far as strength, share and mask let it through. */
export function meetAbove(machine: BandMachine, { mode, strength, share }: Meeting, byMask: boolean): void {
  const { plane, padded: n, run } = machine;
  const { tone, above, stops } = plane;
  if (mode !== "normal") run.blendPlanes(tone, above, above, n, BLEND_MODES.indexOf(mode));
  letThrough(machine, strength, share, byMask);
  run.mixBy(tone, above, stops, tone, n);
}

/** stops → how far a step comes through: its strength, its share over the tone, and the mask. */
export function letThrough(machine: BandMachine, strength: number, share: Float32Array | undefined, byMask: boolean): void {
  const { plane, padded: n, run } = machine;
  machine.view("stops").fill(strength);
  if (share) run.scaleLookedUp(plane.stops, plane.tone, n, machine.tables.at(share), knotsOf(share));
  if (byMask) run.multiply(plane.stops, plane.mask, plane.stops, n);
}
