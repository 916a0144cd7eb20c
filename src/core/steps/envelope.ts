import type { BlendMode } from "../blend/blend";
import type { Gate } from "../gate/gate";

/** How far what a pass makes reaches the tones beneath, whatever it makes. */
export interface Envelope {
  /** 0 nothing, 1 as set, 2 twice as far. */
  strength: number;
  /** How what the move makes meets what is beneath. */
  blend: BlendMode;
  /** The tones it acts on; null for all. */
  gate: Gate | null;
  /** Zones whose tones stay as they come, in order. */
  zonesOff: number[];
}
