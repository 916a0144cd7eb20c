import type { CompiledColour } from "@/core/plan/compilePlan";
import type { Surroundings } from "@/core/spatial/slicedBase";
import type { Spread, ToneBase } from "@/core/spatial/toneBase";
import type { BandMachine } from "./bandMachine";
import type { BandPlace } from "./surroundingsBand";
import type { MaskBases } from "./maskKeys";
import type { GivenStops } from "@/core/steps/step";
import type { Steps } from "./runs";

/** What a pass needs of the whole of the tones that enter it. */
export interface StepBase {
  /** For a step that looks at them: for each way they are gathered in. */
  surroundings: readonly Surroundings[];
  /** For a blurred gate. */
  gate: ToneBase | undefined;
}

/** What changing colour before the mix needs of the whole picture as found: for its masks, and of surroundings, by how they are gathered. */
export interface ColourBases {
  masks: MaskBases;
  around: ReadonlyMap<string, Surroundings>;
}
export const NO_COLOUR_BASES: ColourBases = { masks: new Map(), around: new Map() };

/** What a part of a picture cannot know by itself. */
export interface Bases {
  colour: ColourBases;
  /** By the step whose tones they were gathered from. */
  steps: ReadonlyMap<number, StepBase>;
  masks: MaskBases;
}
export const NO_BASES: Bases = { colour: NO_COLOUR_BASES, steps: new Map(), masks: new Map() };

/** What was laid out for a run: planes of the whole stage, of which the band begins at `first`. */
export interface Laid {
  base?: StepBase | undefined;
  /** How far it acts, but for a gate that is blurred on the way; absent where it acts everywhere. */
  plane?: Float32Array | undefined;
  /** What strokes on its gate let through besides. */
  added?: Float32Array | undefined;
  /** How far tones lie from those close around. */
  differences?: Float32Array | undefined;
  /** Stops painted by hand. */
  painted?: Float32Array | undefined;
  first: number;
}

/** Steps whose places have their stops. */
export type LaidSteps = Omit<Steps, "stops"> & { stops: GivenStops | undefined };

/** Whether steps change tones or colour them. */
export function doesAnything({ surroundings, stops, mixed, detail, chroma, tables }: LaidSteps): boolean {
  return !!surroundings || !!stops || !!mixed || !!detail || !!chroma || tables.length > 0;
}

/** Does a run on the band in the machine; one that reads colours finds them there too, and their hues where it moves any. */
export function applyRun(machine: BandMachine, run: LaidSteps & { free: LaidSteps | undefined }, laid: Laid, place: BandPlace): void {
  const { free } = run;
  const { plane, added, base, first } = laid;
  if (!doesAnything(run)) return;
  if (!plane) return applySteps(machine, run, laid, place);
  machine.putNext("mask", plane, first);
  if (base?.gate) machine.narrowMask(base.gate, place);
  if (!free || !added) {
    if (added) machine.widenMask(added, first);
    return applySteps(machine, run, laid, place);
  }
  // A mixture of what the gate leaves in order and what is in order without it is in order; stops add up one after the other.
  if (run.tables.length > 0) return machine.applyTablesByMasks(run.tables[0]!, free.tables[0]!, added, first);
  applySteps(machine, run, laid, place);
  machine.putNext("mask", added, first);
  applySteps(machine, free, laid, place);
}

function applySteps(
  machine: BandMachine,
  { surroundings, stops, mixed, detail, chroma, tables }: LaidSteps,
  { base, plane, painted, differences, first }: Laid,
  place: BandPlace,
): void {
  const isMasked = plane !== undefined;
  if (painted) machine.putNext("stops", painted, first);
  if (surroundings) machine.applySurroundings(surroundings, base!.surroundings, place, isMasked);
  else if (stops) machine.applyStops(stops, painted !== undefined, isMasked);
  else if (detail) {
    machine.putNext("stops", differences!, first);
    machine.applyDetail(detail, isMasked);
  } else if (mixed) machine.applyMixed(mixed, isMasked);
  else if (chroma) machine.applyChroma(chroma, isMasked);
  else if (isMasked) machine.applyTableByMask(tables[0]!);
  else machine.applyTables(tables);
}

/** A change of colour, and how far it goes. */
export type ColourChange = Pick<CompiledColour, "step" | "strength">;

/** Changes the colour in the machine by passes before the mix, each by its mask where it has one: planes of which the band begins at `first`. */
export function changeColour(
  machine: BandMachine,
  passes: readonly ColourChange[],
  planes: readonly (Float32Array | undefined)[],
  { around }: Pick<ColourBases, "around">,
  place: BandPlace,
  first = 0,
): void {
  passes.forEach(({ step, strength }, i) => {
    const plane = planes[i];
    if (plane) machine.putNext("mask", plane, first);
    const surroundings = step.kind === "light" && step.around ? around.get(spreadKey(step.around.spread)) : undefined;
    machine.applyColour(step, strength, plane !== undefined, surroundings, place);
  });
}

/** What tells apart surroundings gathered in different ways. */
export const spreadKey = (spread: Spread): string => JSON.stringify(spread);
