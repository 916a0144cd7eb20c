import type { Planes } from "@/core/kernels/planes";
import { layStrokes } from "@/core/brush/layStrokes";
import type { CompiledMask, CompiledPlan } from "@/core/plan/compilePlan";
import type { Grid } from "@/core/spatial/grid";
import { rasterShape, type DrawnShape } from "@/core/region/rasterShape";
import type { Size } from "@/core/spatial/areaReduce";
import { detailOf } from "@/core/spatial/detail";
import { maskPicture, putColour, taken, takenColour, type SeenBand } from "./bandColours";
import type { Bases, StepBase } from "../evaluate/bases";
import { changeColour, type BandSupply, type LaidPlanes } from "../evaluate/evaluateBand";
import type { BandMachine } from "../machine/bandMachine";
import { inNewState } from "../machine/grownPlane";
import type { BandPlace } from "../machine/surroundingsBand";
import { isReadOnTheWay, type MaskBases } from "../masks/maskKeys";
import { gateTableOf, maskPlane, multiplyBy, repairPlane, type MaskPicture } from "../masks/maskPlane";
import type { Run } from "../evaluate/runs";
import type { ShownMask } from "../masks/stageMasks";
import type { StepLayer } from "../steps/stepHandler";
import { laidFor } from "../steps/steps";
import type { StopsPlanes } from "../masks/stopsPlanes";
import type { LayStrokes } from "../masks/strokeMaps";

/** A run with what it needs of the whole picture. */
export type RowRun = Run & { base: StepBase | undefined };

/** What all bands of an evaluation of rows share. */
export interface RowPlan {
  machine: BandMachine;
  compiled: CompiledPlan;
  whole: Size;
  runs: readonly RowRun[];
  isColoured: boolean;
  bases: Bases;
  shown: ShownMask | undefined;
  /** Whether masks look at the picture; whether any does so before the mix; whether its surroundings are looked at there. */
  sees: { picture: boolean; beforeMix: boolean; around: boolean };
  /** Whether what is mixed is wanted again once it is. */
  keepsMixed: boolean;
  stops: StopsPlanes;
  /** Brings rows into the machine. */
  load(y: number, rows: number): SeenBand;
}

/** A band of rows, for which everything is made as it is asked for. */
export class RowBand implements BandSupply<RowRun> {
  readonly place: BandPlace;
  readonly #plan: RowPlan;
  readonly #grid: Grid;
  readonly #pixels: number;
  #seen: SeenBand | undefined;
  #mixed: Planes | undefined;
  #layBeforeMix: LayMask | undefined;
  #layMask: LayMask | undefined;

  constructor(plan: RowPlan, grid: Grid) {
    this.#plan = plan;
    this.#grid = grid;
    this.#pixels = grid.width * grid.height;
    this.place = { x: 0, y: grid.y, width: grid.width, whole: plan.whole };
  }

  putColour(withHues: boolean): void {
    const { machine } = this.#plan;
    if (!this.#seen) this.#load();
    else if (this.#mixed) putColour(machine, this.#mixed);
    if (withHues) machine.findHues();
  }

  putOwnColour(): void {
    this.putColour(false);
    this.#plan.machine.findOwnChroma();
  }

  /** Brings what is mixed into the machine: the colours of the rows, changed by the passes before the mix. */
  #load(): void {
    const { machine, compiled, load, sees, bases, keepsMixed } = this.#plan;
    const { y, height } = this.#grid;
    const seen = (this.#seen = load(y, height));
    // Before the mix masks see the tones as found.
    const lay = (this.#layBeforeMix = this.#layer(sees.beforeMix ? maskPicture(seen, seen.plain!) : NO_PICTURE, bases.colour.masks));
    const masks = compiled.colour.map(({ mask }) => mask && lay(mask).mask);
    if (sees.around) machine.put("tone", seen.plain!, 0, this.#pixels);
    changeColour(machine, compiled.colour, masks, bases.colour, this.place);
    if (keepsMixed) this.#mixed = takenColour(machine, this.#pixels);
  }

  onTones(run: RowRun | undefined): void {
    if (run) return;
    const { machine, sees, bases } = this.#plan;
    const picture = sees.picture ? maskPicture(this.#seen!, taken(machine, "tone", this.#pixels)) : NO_PICTURE;
    this.#layMask = this.#layer(picture, bases.masks);
  }

  planesOf({ from, steps, mask }: RowRun): LaidPlanes {
    const { machine, compiled, stops, whole } = this.#plan;
    const longEdge = Math.max(whole.width, whole.height);
    const layer: StepLayer = {
      stops: (placed) => stops.plane({ id: compiled.passes[from]!.id, placed, frame: compiled.frame }, this.#grid, layOn(this.#grid)),
      differences: (radius) => detailOf(taken(machine, "tone", this.#pixels), this.#grid, radius * longEdge),
    };
    const laid = laidFor(steps[0]!, layer)?.plane;
    return { ...(mask && this.#layMask!(mask)), laid, first: 0 };
  }

  /** tone → how far a mask acts. */
  showMask({ mask: own, beforeMix, reach }: ShownMask): void {
    const { machine, bases, compiled } = this.#plan;
    const gate = bases.steps.get(compiled.passes.length)?.gate;
    const { mask, added } = own ? (beforeMix ? this.#layBeforeMix! : this.#layMask!)(own) : EVERYWHERE;
    machine.putNext("mask", mask ?? new Float32Array(this.#pixels).fill(1), 0);
    if (gate) machine.narrowMask(gate, this.place);
    if (isReadOnTheWay(own?.gate)) machine.gateMask(gateTableOf(own.gate));
    if (added) machine.widenMask(added, 0);
    machine.showMask(reach);
  }

  /** Lays masks out; passes that act through the same one share what is laid out. */
  #layer(picture: MaskPicture, bases: MaskBases): LayMask {
    const known = new Map<string, LaidMask>();
    const layMask: LayMask = (mask) => {
      const found = known.get(mask.key);
      if (found) return found;
      const parts = [mask, this.#grid, picture, bases, (shape: DrawnShape) => this.#shape(shape)] as const;
      const laid = { mask: maskPlane(...parts), added: repairPlane(...parts) };
      known.set(mask.key, laid);
      const within = mask.within && layMask(mask.within).mask!;
      if (within) for (const plane of [laid.mask, laid.added]) if (plane) multiplyBy(plane, within);
      return laid;
    };
    return layMask;
  }

  #shape(shape: DrawnShape): Float32Array {
    return (shape.kind === "brush" && this.#plan.stops.strokeMaps.brushed(shape, this.#grid)) || rasterShape(shape, this.#grid);
  }
}

type LaidMask = Pick<LaidPlanes, "mask" | "added">;
type LayMask = (mask: CompiledMask) => LaidMask;
const EVERYWHERE: LaidMask = { mask: undefined, added: undefined };

/** Lays strokes out on a band. */
function layOn(grid: Grid): LayStrokes {
  return (_, strokes, goalOf) => {
    const plane = new Float32Array(grid.width * grid.height);
    layStrokes(plane, grid, strokes, goalOf);
    return inNewState(plane);
  };
}

/** For masks of regions alone, which look at no picture. */
const NONE = new Float32Array(0);
const NO_PICTURE: MaskPicture = { red: NONE, green: NONE, blue: NONE, mixed: () => NONE, hues: () => ({ hue: NONE, fade: NONE }) };
