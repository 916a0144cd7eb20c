import type { CompiledPlan } from "@/core/plan/compilePlan";
import { gridOf } from "@/core/spatial/grid";
import type { Size } from "@/core/spatial/areaReduce";
import { TONE_KNOTS } from "@/core/zones/toneKnots";
import { bandColours, taken, type StoredRows } from "./bandColours";
import { NO_BASES, type Bases } from "../evaluate/bases";
import { evaluateBand } from "../evaluate/evaluateBand";
import { BAND_PIXELS, BandMachine } from "../machine/bandMachine";
import { CHROMA_PLANES } from "../machine/chromaBand";
import { looksAtPicture } from "../masks/maskKeys";
import { RowBand, type RowPlan } from "./rowBand";
import { closeReach, laysColour, readsColour, runsOf } from "../evaluate/runs";
import type { ShownMask } from "../masks/stageMasks";
import { colourSpreadOf } from "../steps/colourSteps";
import { StopsPlanes } from "../masks/stopsPlanes";

/**
 * Rows of a band for each one beyond it that is worked out with it, as long as its pixels are no more than these: a machine holds some
 * twenty numbers for each.
 */
const BAND_REACHES = 6;
const MOST_BAND_PIXELS = 1 << 21;

/** A picture whose rows are read, with its cleaned colours where a plan reads them. */
export type RowSource = StoredRows & { size: Size; cleaned?: StoredRows | undefined };

export interface RowOptions {
  /** What passes that gather, and masks that look at the whole picture, need: only it can tell. */
  bases?: Bases | undefined;
  bandPixels?: number | undefined;
  /** A mask to be made in the place of tones, on those that leave the plan: linear from 0 to full. */
  shown?: ShownMask | undefined;
}

/** Evaluates a plan on rows of a stored picture, a band at a time. Any split gives the same. */
export class RowBands {
  readonly machine: BandMachine;
  /** Rows of a band, and those on either side that are worked out with it. */
  readonly #rowsInBand: number;
  readonly #reach: number;
  readonly #plan: RowPlan;

  /** `isColoured`: whether colour is laid on tones, where the plan lays any. */
  constructor(
    source: RowSource,
    plan: CompiledPlan,
    readonly isColoured: boolean,
    { bases = NO_BASES, bandPixels = BAND_PIXELS, shown }: RowOptions,
  ) {
    const { width, height } = source.size;
    // Where tones are compared with those around, what lies beyond a band is worked out with it: the band is large beside that.
    const reach = (this.#reach = closeReach(plan, Math.max(width, height)));
    const most = Math.max(reach, Math.floor(MOST_BAND_PIXELS / width));
    this.#rowsInBand = Math.max(1, Math.floor(bandPixels / width), Math.min(BAND_REACHES * reach, most));
    const machine = (this.machine = new BandMachine(Math.max(bandPixels, width * (this.#rowsInBand + 2 * reach)), TONE_KNOTS));
    machine.setMix(plan);
    const runs = runsOf(plan)
      .filter(({ from }) => isColoured || !laysColour(plan.passes[from]!))
      .map((run) => ({ ...run, base: bases.steps.get(run.from) }));
    const masks = [shown?.mask, ...runs.map(({ mask }) => mask)];
    const beforeMix = !!shown?.beforeMix || plan.colour.some(({ mask }) => mask && looksAtPicture(mask));
    const picture = beforeMix || masks.some((mask) => mask && looksAtPicture(mask));
    const around = plan.colour.some(({ step }) => colourSpreadOf(step));
    this.#plan = {
      machine,
      compiled: plan,
      whole: source.size,
      runs,
      isColoured,
      bases,
      shown,
      sees: { picture, beforeMix, around },
      // Masks find what they see in the machine, where the colour that is mixed lies.
      keepsMixed: picture && runs.some(readsColour),
      stops: new StopsPlanes(source.size),
      load: bandColours(machine, source, width, plan.clean, { colour: picture, plain: beforeMix || around }),
    };
  }

  /** Calls for bands of rows from one up to another, with their tones, and the colour on them, in the machine. */
  forBands(first: number, end: number, take: (y: number, rows: number) => void): void {
    const { width, height } = this.#plan.whole;
    for (let inner = first; inner < end; inner += this.#rowsInBand) {
      const innerRows = Math.min(this.#rowsInBand, end - inner);
      const y = Math.max(inner - this.#reach, 0);
      const rows = Math.min(inner + innerRows + this.#reach, height) - y;
      this.#evaluate(y, rows);
      if (rows > innerRows) this.#keep((inner - y) * width, (inner - y + innerRows) * width, rows * width);
      take(inner, innerRows);
    }
  }

  #evaluate(y: number, rows: number): void {
    const { machine, compiled, runs, isColoured, shown, whole } = this.#plan;
    const band = new RowBand(this.#plan, gridOf({ width: whole.width, height: rows }, 0, y, whole));
    evaluateBand(machine, { mix: compiled, laysColour: isColoured, runs }, band);
    if (shown) band.showMask(shown);
  }

  /** Leaves some of the pixels of a band in the machine. */
  #keep(from: number, to: number, pixels: number): void {
    const names = this.isColoured ? (["tone", ...CHROMA_PLANES] as const) : (["tone"] as const);
    const planes = names.map((name) => [name, taken(this.machine, name, pixels)] as const);
    for (const [name, plane] of planes) this.machine.put(name, plane, from, to);
  }
}
