import { TONE_KNOTS, type CompiledPlan } from "@/core/plan/compilePlan";
import { linearP3ToOklab, oklabToLch } from "@/core/colour/oklab";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Planes } from "@/core/kernels/reference";
import { areaReduceRows, type Size } from "@/core/spatial/areaReduce";
import { ditherRow, NO_DITHER } from "@/core/view/dither";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { BAND_PIXELS, BandMachine } from "./bandMachine";

/** How a stage is turned into pixels. */
export interface Showing {
  /** Levels 0–255 over tone, or over linear light when `colour` is set. */
  table: Float32Array;
  dithered: boolean;
  /** The source colours instead of the tones. */
  colour: boolean;
}

/** Tone histograms of HISTOGRAM_BINS. */
export interface StageHistograms {
  /** Entering and leaving the chosen pass; both leave the mix where none is chosen. */
  entering: Uint32Array;
  leaving: Uint32Array;
  /** Histogram of the finished tones. */
  finished: Uint32Array;
}

export interface PointReading {
  /** Tones entering and leaving the chosen pass, and finished. */
  entering: number;
  leaving: number;
  finished: number;
  /** The source colour in OKLCH. */
  chroma: number;
  hueDeg: number;
  lightness: number;
}

/** The tones after a step, good for as long as the step has this key. */
interface Checkpoint {
  key: string;
  tone: Float32Array;
  histogram: Uint32Array | undefined;
}

/** Checkpoints kept at the most, besides those of the mix and around the chosen pass. */
const MOST_CHECKPOINTS = 24;
/** Tones are read from the mean of a square this many pixels to each side. */
const READING_REACH = 1;
/** Room made for passes at first; doubled when a plan has more. */
const FIRST_PASS_SLOTS = 12;
const COLOURS = ["red", "green", "blue"] as const;

/**
 * A picture, or a part of one, held ready for quick re-rendering: linear colour once decoded, and the
 * tones after each pass, so that a change of pass k runs from k on.
 *
 * Memory  12 bytes a pixel for colour, 8 more once hues are moved, 4 for each checkpoint; bounded.
 */
export class Stage {
  readonly #red: Float32Array;
  readonly #green: Float32Array;
  readonly #blue: Float32Array;
  #hues: { hue: Float32Array; fade: Float32Array } | undefined;
  #machine: BandMachine;
  readonly #rowsInBand: number;
  /** Tones after step i: 0 is the mix, i is pass i. */
  #checkpoints = new Map<number, Checkpoint>();
  #spare: Float32Array[] = [];
  #mixKey = "";
  #stepKeys: string[] = [];
  #plan: CompiledPlan | undefined;
  #chosen: number | undefined;

  private constructor(
    planes: Planes,
    readonly size: Size,
  ) {
    this.#red = planes.red;
    this.#green = planes.green;
    this.#blue = planes.blue;
    this.#rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    this.#machine = machineFor(size, this.#rowsInBand, FIRST_PASS_SLOTS);
  }

  /** A stage from stored levels: interleaved RGB, row after row. */
  static fromLevels(levels: Uint8Array | Uint16Array, size: Size, space: SourceSpace): Stage {
    const pixels = size.width * size.height;
    const planes = { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
    const stage = new Stage(planes, size);
    const machine = stage.#machine;
    machine.setSpace(space, levels instanceof Uint8Array ? 8 : 16);
    stage.#forBands((from, to) => {
      machine.decode(levels.subarray(3 * from, 3 * to));
      for (const name of COLOURS) machine.take(name, planes[name], from);
    });
    return stage;
  }

  /** The same picture smaller, area-averaged in linear light. */
  reducedTo(size: Size): Stage {
    const reduce = (plane: Float32Array) => areaReduceRows(plane, 0, this.size, size, 0, size.height);
    return new Stage({ red: reduce(this.#red), green: reduce(this.#green), blue: reduce(this.#blue) }, size);
  }

  /**
   * Renders a plan as it is to be shown: opaque pixels, 4 bytes each, in the buffer given where it fits.
   * `chosen` is the index of the pass in hand.
   */
  render(plan: CompiledPlan, chosen: number | undefined, showing: Showing, buffer?: ArrayBuffer): Uint8ClampedArray<ArrayBuffer> {
    const machine = this.#prepare(plan, chosen);
    machine.setOutputTable(showing.table);
    const pixels = this.size.width * this.size.height;
    // Filled as plain bytes: setting a clamped array from a plain one goes value by value.
    const rgba = new Uint8Array(buffer?.byteLength === 4 * pixels ? buffer : new ArrayBuffer(4 * pixels));
    this.#run(plan, chosen, (first, end, y, rows) => {
      if (showing.colour) {
        this.#putColour(first, end);
        rgba.set(machine.colourRgba(), 4 * first);
      } else this.#showTones(rgba, first, y, rows, showing.dithered);
    });
    return new Uint8ClampedArray(rgba.buffer);
  }

  /** Brings the tones up to date with a plan, without making pixels. */
  update(plan: CompiledPlan, chosen: number | undefined): void {
    this.#prepare(plan, chosen);
    this.#run(plan, chosen);
  }

  #prepare(plan: CompiledPlan, chosen: number | undefined): BandMachine {
    if (plan.passes.length > this.#machine.passSlots) this.#machine = machineFor(this.size, this.#rowsInBand, 2 * plan.passes.length);
    this.#plan = plan;
    this.#chosen = chosen;
    this.#machine.setPlan(plan);
    if (this.#machine.movesHues) this.#findHues();
    return this.#machine;
  }

  /** Runs the plan from the last step that is still good; `useBand` sees each band with its finished tones. */
  #run(plan: CompiledPlan, chosen: number | undefined, useBand?: (first: number, end: number, y: number, rows: number) => void): void {
    const machine = this.#machine;
    const keys = this.#keysOf(plan);
    const last = plan.passes.length;
    const kept = stepsToKeep(last, [0, last, chosen ?? 0, chosen === undefined ? 0 : chosen + 1]);
    const start = this.#startStep(keys, kept);
    this.#recycle(keys, kept, start);
    const fresh = this.#freshCheckpoints(keys, kept);
    if (!useBand && fresh.size === 0) return;
    const from = start === undefined ? undefined : this.#checkpoints.get(start);
    this.#forBands((first, end, y, rows) => {
      if (from) machine.put("tone", from.tone, first, end);
      else this.#mixBand(first, end);
      for (let step = start ?? 0; step <= last; step++) {
        if (step > (start ?? 0)) machine.applyPass(step - 1);
        const checkpoint = fresh.get(step);
        if (checkpoint) machine.take("tone", checkpoint.tone, first);
      }
      useBand?.(first, end, y, rows);
    });
    for (const [step, checkpoint] of fresh) this.#checkpoints.set(step, checkpoint);
  }

  /** Histograms around the pass in hand of the plan rendered last; undefined before any. */
  histograms(): StageHistograms | undefined {
    if (!this.#plan) return undefined;
    const chosen = this.#chosen;
    return {
      entering: this.#histogram(chosen ?? 0),
      leaving: this.#histogram(chosen === undefined ? 0 : chosen + 1),
      finished: this.#histogram(this.#plan.passes.length),
    };
  }

  /** The tones and colour around a pixel of the plan rendered last; undefined before any. */
  readPoint(x: number, y: number): PointReading | undefined {
    if (!this.#plan) return undefined;
    const mean = (plane: Float32Array) => this.#meanAround(plane, x, y);
    const tone = (step: number) => mean(this.#checkpoints.get(step)!.tone);
    const { lightness, chroma, hueDeg } = oklabToLch(linearP3ToOklab([mean(this.#red), mean(this.#green), mean(this.#blue)]));
    const chosen = this.#chosen;
    return {
      entering: tone(chosen ?? 0),
      leaving: tone(chosen === undefined ? 0 : chosen + 1),
      finished: tone(this.#plan.passes.length),
      lightness,
      chroma,
      hueDeg,
    };
  }

  /** How much of the picture holds each hue: `bins` sums over the turn, weighted by how coloured a pixel is. */
  hueShares(bins: number): Float32Array {
    const { hue, fade } = this.#findHues();
    const shares = new Float32Array(bins);
    for (let i = 0; i < hue.length; i++) {
      const bin = Math.min(Math.floor(hue[i]! * bins), bins - 1);
      shares[bin] = shares[bin]! + fade[i]!;
    }
    return shares.map((sum) => sum / hue.length);
  }

  #forBands(work: (from: number, to: number, y: number, rows: number) => void): void {
    const { width, height } = this.size;
    for (let y = 0; y < height; y += this.#rowsInBand) {
      const rows = Math.min(this.#rowsInBand, height - y);
      work(y * width, (y + rows) * width, y, rows);
    }
  }

  #putColour(from: number, to: number): void {
    this.#machine.put("red", this.#red, from, to);
    this.#machine.put("green", this.#green, from, to);
    this.#machine.put("blue", this.#blue, from, to);
  }

  #mixBand(from: number, to: number): void {
    this.#putColour(from, to);
    if (this.#hues && this.#machine.movesHues) {
      this.#machine.put("hue", this.#hues.hue, from, to);
      this.#machine.put("fade", this.#hues.fade, from, to);
    }
    this.#machine.mix();
  }

  #findHues(): { hue: Float32Array; fade: Float32Array } {
    if (this.#hues) return this.#hues;
    const hues = { hue: new Float32Array(this.#red.length), fade: new Float32Array(this.#red.length) };
    this.#forBands((from, to) => {
      this.#putColour(from, to);
      this.#machine.findHues();
      this.#machine.take("hue", hues.hue, from);
      this.#machine.take("fade", hues.fade, from);
    });
    return (this.#hues = hues);
  }

  /** A key for the tones after each step: equal keys, equal tones. */
  #keysOf(plan: CompiledPlan): string[] {
    const mixKey = `${JSON.stringify(plan.weights)} ${plan.hueKey}`;
    let same = mixKey === this.#mixKey;
    const keys = [same ? this.#stepKeys[0]! : uniqueKey()];
    this.#mixKey = mixKey;
    plan.passes.forEach((pass, i) => {
      const old = this.#passKeys[i];
      same = same && old === pass.key;
      const before = keys[i]!;
      keys.push(same ? this.#stepKeys[i + 1]! : pass.table ? uniqueKey() : before);
    });
    this.#passKeys = plan.passes.map((pass) => pass.key);
    return (this.#stepKeys = keys);
  }
  #passKeys: string[] = [];

  /** Where to start so that every step to keep gets its tones: the last good one before the first that is missing. */
  #startStep(keys: string[], kept: Set<number>): number | undefined {
    const isGood = (step: number) => this.#checkpoints.get(step)?.key === keys[step];
    const missing = Math.min(...[...kept].filter((step) => !isGood(step)), keys.length - 1);
    for (let step = missing; step >= 0; step--) if (isGood(step)) return step;
    return undefined;
  }

  /** Gives the planes of checkpoints that are wrong or no longer wanted back for reuse. */
  #recycle(keys: string[], kept: Set<number>, start: number | undefined): void {
    for (const [step, { key, tone }] of this.#checkpoints) {
      if (step === start || (kept.has(step) && key === keys[step])) continue;
      this.#checkpoints.delete(step);
      this.#spare.push(tone);
    }
  }

  #freshCheckpoints(keys: string[], kept: Set<number>): Map<number, Checkpoint> {
    const fresh = new Map<number, Checkpoint>();
    for (const step of kept) {
      if (this.#checkpoints.has(step)) continue;
      fresh.set(step, { key: keys[step]!, tone: this.#spare.pop() ?? new Float32Array(this.#red.length), histogram: undefined });
    }
    this.#spare.length = Math.min(this.#spare.length, 2);
    return fresh;
  }

  #histogram(step: number): Uint32Array {
    const checkpoint = this.#checkpoints.get(step)!;
    if (checkpoint.histogram) return checkpoint.histogram;
    const counts = new Uint32Array(HISTOGRAM_BINS);
    this.#forBands((from, to) => {
      this.#machine.put("tone", checkpoint.tone, from, to);
      this.#machine.countTones(counts);
    });
    return (checkpoint.histogram = counts);
  }

  #showTones(rgba: Uint8Array, first: number, y: number, rows: number, dithered: boolean): void {
    const { width } = this.size;
    for (let row = 0; row < rows; row++) {
      const pixels = this.#machine.greyRgbaRow(row * width, width, dithered ? ditherRow(y + row) : NO_DITHER);
      rgba.set(pixels, 4 * (first + row * width));
    }
  }

  #meanAround(plane: Float32Array, x: number, y: number): number {
    const { width, height } = this.size;
    let sum = 0;
    let count = 0;
    for (let row = Math.max(y - READING_REACH, 0); row <= Math.min(y + READING_REACH, height - 1); row++) {
      for (let column = Math.max(x - READING_REACH, 0); column <= Math.min(x + READING_REACH, width - 1); column++) {
        sum += plane[row * width + column]!;
        count++;
      }
    }
    return sum / count;
  }
}

function machineFor(size: Size, rowsInBand: number, passSlots: number): BandMachine {
  return new BandMachine(rowsInBand * size.width, passSlots, TONE_KNOTS);
}

/** The steps whose tones are kept: those asked for, and an even choice of the rest within the bound. */
function stepsToKeep(last: number, wanted: readonly number[]): Set<number> {
  const steps = new Set(wanted);
  const stride = Math.ceil((last + 1) / MOST_CHECKPOINTS);
  for (let step = 0; step <= last; step += stride) steps.add(step);
  return steps;
}

let keysMade = 0;
function uniqueKey(): string {
  return String(++keysMade);
}
