import { openGate, zoneGate, type Gate } from "./gate";
import { ZONE_COUNT, zoneNumeral } from "../zones/zone";

export interface ReadyGate {
  name: string;
  gate: Gate;
}

const gate = (from: number, to: number, low: number, high: number): Gate => ({ ...openGate(), from, to, low, high });

/** Lights, darks and middles, each in three widths. Shoulders are long, so that no edge shows. */
export const READY_GATES: readonly ReadyGate[] = [
  { name: "Lights, wide", gate: gate(7, 10, 4, 0) },
  { name: "Lights", gate: gate(8, 10, 3, 0) },
  { name: "Lights, narrow", gate: gate(9, 10, 2, 0) },
  { name: "Middles, wide", gate: gate(3.5, 6.5, 3, 3) },
  { name: "Middles", gate: gate(4.5, 5.5, 2.5, 2.5) },
  { name: "Middles, narrow", gate: gate(5, 5, 1.5, 1.5) },
  { name: "Darks, wide", gate: gate(0, 3, 0, 4) },
  { name: "Darks", gate: gate(0, 2, 0, 3) },
  { name: "Darks, narrow", gate: gate(0, 1, 0, 2) },
];

/** Each single zone. */
export const ZONE_GATES: readonly ReadyGate[] = Array.from({ length: ZONE_COUNT }, (_, zone) => ({
  name: `Zone ${zoneNumeral(zone)}`,
  gate: zoneGate(zone),
}));
