import type { Surroundings } from "@/core/spatial/slicedBase";
import type { ToneBase } from "@/core/spatial/toneBase";
import type { BandMachine, BandPlace } from "./bandMachine";
import type { MaskBases } from "./maskKeys";
import type { Run } from "./runs";

/** What a pass needs of the whole of the tones that enter it. */
export interface StepBase {
  /** For a spatial step. */
  surroundings: Surroundings | undefined;
  /** For a blurred gate. */
  gate: ToneBase | undefined;
}

/** What a part of a picture cannot know by itself. */
export interface Bases {
  /** By the step whose tones they were gathered from. */
  steps: ReadonlyMap<number, StepBase>;
  masks: MaskBases;
}
export const NO_BASES: Bases = { steps: new Map(), masks: new Map() };

/** What was laid out for a run. */
export interface Laid {
  base?: StepBase | undefined;
  /** What strokes on its gate add to the mask, from `first` on. */
  added?: Float32Array | undefined;
  first?: number;
  /** Whether stops painted by hand lie in the machine. */
  isPainted?: boolean;
}

/** Does a run on the band in the machine; its mask, if it has one, lies there already. */
export function applyRun(
  machine: BandMachine,
  { spatial, exposure, tables, mask, gateTable }: Pick<Run, "spatial" | "exposure" | "tables" | "mask" | "gateTable">,
  { base, added, first = 0, isPainted = false }: Laid,
  place: BandPlace,
): void {
  if (!spatial && !exposure && tables.length === 0) return;
  if (mask && base?.gate) machine.narrowMask(base.gate, place);
  if (mask) machine.openMask(gateTable, added, first);
  if (spatial) machine.applySpatial(spatial, base!.surroundings!, place, !!mask);
  else if (exposure) machine.applyExposure(exposure, isPainted, !!mask);
  else if (mask) machine.applyTableByMask(tables[0]!);
  else machine.applyTables(tables);
}
