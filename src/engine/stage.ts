import type { CompiledPlan, CompiledStep } from "@/core/plan/compilePlan";
import { linearP3ToOklab, oklabToLch } from "@/core/colour/oklab";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Planes } from "@/core/kernels/reference";
import { areaReduceRows, type Size } from "@/core/spatial/areaReduce";
import { toneBase, type Spread, type ToneBase } from "@/core/spatial/toneBase";
import { ditherRow, NO_DITHER } from "@/core/view/dither";
import { drawScreens } from "@/core/view/screens";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { BAND_PIXELS, BandMachine, type BandPlace } from "./bandMachine";
import { FUSED_KNOTS, TableFuser } from "./fuseTables";
import { NO_HAND, runsOf, type Hand, type Run } from "./runs";

/** How a stage is turned into pixels. */
export interface Showing {
  /** Levels 0–255 over tone, or over linear light when `of` is the colour. */
  table: Float32Array;
  dithered: boolean;
  /** The finished tones, the source colours instead, or what the passes in hand change, on mid grey. */
  of: "print" | "colour" | "change";
  /** Whether full black is drawn as a line screen and bare paper as a dot screen. */
  screens: boolean;
}

/** Tone histograms of HISTOGRAM_BINS. */
export interface StageHistograms {
  /** Entering and leaving the passes in hand; both leave the mix where none is. */
  entering: Uint32Array;
  leaving: Uint32Array;
  /** Histogram of the finished tones. */
  finished: Uint32Array;
}

export interface PointReading {
  /** Tones entering and leaving the passes in hand, and finished. */
  entering: number;
  leaving: number;
  finished: number;
  /** The source colour in OKLCH. */
  chroma: number;
  hueDeg: number;
  lightness: number;
}

/** The surroundings for the spatial steps of a plan, by the step they enter. */
export type ToneBases = ReadonlyMap<number, ToneBase>;

/** The tones after a step, good for as long as the step has this key. */
interface Checkpoint {
  key: string;
  tone: Float32Array;
  histogram: Uint32Array | undefined;
}

/** Tones are read from the mean of a square this many pixels to each side. */
const READING_REACH = 1;
/** How much a change of tone is enlarged where it is shown alone: a zone up is a fifth of the way to white. */
const CHANGE_GAIN = 2;
/** Planes kept for reuse. */
const MOST_SPARE = 4;
const COLOURS = ["red", "green", "blue"] as const;

/** Where a stage lies that holds only a part of a picture: its corner, and the whole picture's size at this scale. */
export interface StagePlace {
  x: number;
  y: number;
  whole: Size;
}

/**
 * A picture, or a part of one, held ready for quick re-rendering: linear colour once decoded, and the
 * tones around the passes in hand and before every spatial step, so that a move under the hand runs from there on.
 *
 * Memory  12 bytes a pixel for colour, 8 more once hues are moved, 4 for each checkpoint: at most four and one a spatial step.
 */
export class Stage {
  readonly #red: Float32Array;
  readonly #green: Float32Array;
  readonly #blue: Float32Array;
  #hues: { hue: Float32Array; fade: Float32Array } | undefined;
  readonly #machine: BandMachine;
  readonly #rowsInBand: number;
  readonly #place: StagePlace;
  readonly #fuser = new TableFuser();
  /** Tones after step i: 0 is the mix, i is pass i. */
  #checkpoints = new Map<number, Checkpoint>();
  #spare: Float32Array[] = [];
  #mixKey = "";
  #passKeys: string[] = [];
  #stepKeys: string[] = [];
  /** Surroundings by the step they enter, with the key of the tones they were gathered from. */
  #bases = new Map<number, { key: string; base: ToneBase }>();
  #plan: CompiledPlan | undefined;
  #hand: Hand = NO_HAND;

  private constructor(
    planes: Planes,
    readonly size: Size,
    place?: StagePlace,
  ) {
    this.#red = planes.red;
    this.#green = planes.green;
    this.#blue = planes.blue;
    this.#place = place ?? { x: 0, y: 0, whole: size };
    this.#rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    this.#machine = new BandMachine(this.#rowsInBand * size.width, FUSED_KNOTS);
  }

  /** A stage from stored levels: interleaved RGB, row after row. `place` where they are a part of a picture. */
  static fromLevels(levels: Uint8Array | Uint16Array, size: Size, space: SourceSpace, place?: StagePlace): Stage {
    const pixels = size.width * size.height;
    const planes = { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
    const stage = new Stage(planes, size, place);
    const machine = stage.#machine;
    machine.setSpace(space, levels instanceof Uint8Array ? 8 : 16);
    stage.#forBands((from, to) => {
      machine.decode(levels.subarray(3 * from, 3 * to));
      for (const name of COLOURS) machine.take(name, planes[name], from);
    });
    return stage;
  }

  /** The same picture smaller, area-averaged in linear light. Of whole pictures only. */
  reducedTo(size: Size): Stage {
    const reduce = (plane: Float32Array) => areaReduceRows(plane, 0, this.size, size, 0, size.height);
    return new Stage({ red: reduce(this.#red), green: reduce(this.#green), blue: reduce(this.#blue) }, size);
  }

  /**
   * Renders a plan as it is to be shown: opaque pixels, 4 bytes each, in the buffer given where it fits.
   * A part of a picture cannot see its surroundings: they are given to it, from a stage of the whole.
   */
  render(
    plan: CompiledPlan,
    hand: Hand | undefined,
    showing: Showing,
    { buffer, bases }: { buffer?: ArrayBuffer | undefined; bases?: ToneBases | undefined } = {},
  ): Uint8ClampedArray<ArrayBuffer> {
    const machine = this.#prepare(plan, hand);
    machine.setOutputTable(showing.table);
    const pixels = this.size.width * this.size.height;
    // Filled as plain bytes: setting a clamped array from a plain one goes value by value.
    const rgba = new Uint8Array(buffer?.byteLength === 4 * pixels ? buffer : new ArrayBuffer(4 * pixels));
    this.#run(plan, bases, (first, end, y, rows) => {
      if (showing.of === "colour") {
        this.#putColour(first, end);
        rgba.set(machine.colourRgba(), 4 * first);
      } else if (showing.of === "print") this.#showTones(rgba, first, y, rows, showing.dithered);
    });
    // What the passes in hand change is known only when both sides of them are.
    if (showing.of === "change") this.#showChange(rgba, showing.dithered);
    if (showing.screens) drawScreens(rgba, this.#toneAt(plan.passes.length), this.size.width);
    return new Uint8ClampedArray(rgba.buffer);
  }

  /** Brings the tones up to date with a plan, without making pixels. */
  update(plan: CompiledPlan, hand: Hand | undefined, bases?: ToneBases): void {
    this.#prepare(plan, hand);
    this.#run(plan, bases);
  }

  /** The surroundings that the spatial steps of the plan rendered last were given. */
  bases(): ToneBases {
    return new Map([...this.#bases].map(([step, { base }]) => [step, base]));
  }

  #prepare(plan: CompiledPlan, hand: Hand = NO_HAND): BandMachine {
    this.#plan = plan;
    this.#hand = hand;
    this.#machine.setMix(plan);
    if (this.#machine.movesHues) this.#findHues();
    return this.#machine;
  }

  /**
   * Runs the plan from the last step whose tones are still good; `useBand` sees each band with its finished tones.
   * A spatial step needs the whole of what enters it, so the sweep over the bands begins anew there, unless its
   * surroundings are given.
   */
  #run(plan: CompiledPlan, given: ToneBases | undefined, useBand?: UseBand): void {
    const last = plan.passes.length;
    const keys = this.#keysOf(plan);
    const barriers = new Set(given ? [] : plan.passes.flatMap(({ step }, i) => (step?.kind === "spatial" ? [i] : [])));
    const kept = new Set([0, last, this.#hand.first, this.#hand.end, ...barriers]);
    for (const step of this.#bases.keys()) if (!barriers.has(step)) this.#bases.delete(step);
    const start = this.#startStep(keys, kept);
    this.#recycle(keys, kept, start);
    const fresh = this.#makeCheckpoints(keys, kept);
    if (!useBand && fresh.size === 0) return;
    const runs = runsOf(plan, this.#hand, this.#fuser).filter(({ from }) => from >= (start ?? 0));
    sweepsOf(runs, barriers, start).forEach((sweep, i, sweeps) => {
      const source = i === 0 && start === undefined ? undefined : this.#toneAt(sweep[0]?.from ?? start!);
      const bases =
        given ?? new Map(sweep.flatMap(({ from: step, spatial }) => (spatial ? [[step, this.#gather(step, spatial.spread)]] : [])));
      this.#sweep(sweep, source, fresh, bases, i === sweeps.length - 1 ? useBand : undefined);
    });
  }

  /** Runs over all bands, from the source colours or from the tones given, filling the checkpoints passed on the way. */
  #sweep(runs: readonly Run[], source: Float32Array | undefined, fresh: ReadonlySet<number>, bases: ToneBases, useBand?: UseBand): void {
    const machine = this.#machine;
    const keep = (step: number, first: number) => fresh.has(step) && machine.take("tone", this.#toneAt(step), first);
    this.#forBands((first, end, y, rows) => {
      if (source) machine.put("tone", source, first, end);
      else {
        this.#mixBand(first, end);
        keep(0, first);
      }
      for (const { from, to, spatial, tables } of runs) {
        if (spatial) machine.applySpatial(spatial, bases.get(from)!, this.#bandPlace(y));
        else machine.applyTables(tables);
        keep(to, first);
      }
      useBand?.(first, end, y, rows);
    });
  }

  /** The surroundings for the spatial step that begins at `step`, gathered anew only where something before it changed. */
  #gather(step: number, spread: Spread): ToneBase {
    const { key, tone } = this.#checkpoints.get(step)!;
    const wanted = `${key} ${spread.radius} ${spread.edges}`;
    const known = this.#bases.get(step);
    if (known?.key === wanted) return known.base;
    const base = toneBase(tone, this.size, spread);
    this.#bases.set(step, { key: wanted, base });
    return base;
  }

  #bandPlace(y: number): BandPlace {
    const { x, y: top, whole } = this.#place;
    return { x, y: top + y, width: this.size.width, whole };
  }

  #toneAt(step: number): Float32Array {
    return this.#checkpoints.get(step)!.tone;
  }

  /** Histograms around the passes in hand of the plan rendered last; undefined before any. */
  histograms(): StageHistograms | undefined {
    if (!this.#plan) return undefined;
    const { first, end } = this.#hand;
    return { entering: this.#histogram(first), leaving: this.#histogram(end), finished: this.#histogram(this.#plan.passes.length) };
  }

  /** The tones and colour around a pixel of the plan rendered last; undefined before any. */
  readPoint(x: number, y: number): PointReading | undefined {
    if (!this.#plan) return undefined;
    const mean = (plane: Float32Array) => this.#meanAround(plane, x, y);
    const tone = (step: number) => mean(this.#toneAt(step));
    const { first, end } = this.#hand;
    return {
      entering: tone(first),
      leaving: tone(end),
      finished: tone(this.#plan.passes.length),
      ...oklabToLch(linearP3ToOklab([mean(this.#red), mean(this.#green), mean(this.#blue)])),
    };
  }

  /** What each pass of a plan adds to the tones: as many planes as passes. Keeps nothing; for small stages. */
  changes(plan: CompiledPlan): Float32Array[] {
    this.update({ ...plan, passes: [] }, undefined);
    let before = this.#toneAt(0);
    return plan.passes.map(({ step }) => {
      if (!step) return new Float32Array(before.length);
      const after = this.#applied(step, before);
      const change = after.map((tone, i) => tone - before[i]!);
      before = after;
      return change;
    });
  }

  #applied(step: CompiledStep, tone: Float32Array): Float32Array {
    const out = new Float32Array(tone.length);
    const base = step.kind === "spatial" ? toneBase(tone, this.size, step.spread) : undefined;
    this.#forBands((first, end, y) => {
      this.#machine.put("tone", tone, first, end);
      if (step.kind === "spatial") this.#machine.applySpatial(step, base!, this.#bandPlace(y));
      else this.#machine.applyTables([step.table]);
      this.#machine.take("tone", out, first);
    });
    return out;
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
      same = same && this.#passKeys[i] === pass.key;
      keys.push(same ? this.#stepKeys[i + 1]! : pass.step ? uniqueKey() : keys[i]!);
    });
    this.#passKeys = plan.passes.map((pass) => pass.key);
    return (this.#stepKeys = keys);
  }

  /** Where to start so that every step to keep gets its tones: the last good one before the first that is missing. */
  #startStep(keys: string[], kept: Set<number>): number | undefined {
    const steps = [...kept].sort((a, b) => a - b);
    const isBad = (step: number) => this.#checkpoints.get(step)?.key !== keys[step];
    const missing = steps.findIndex(isBad);
    return missing < 0 ? keys.length - 1 : steps[missing - 1];
  }

  /** Gives the planes of checkpoints that are wrong or no longer wanted back for reuse. */
  #recycle(keys: string[], kept: Set<number>, start: number | undefined): void {
    for (const [step, { key, tone }] of this.#checkpoints) {
      if (step === start || (kept.has(step) && key === keys[step])) continue;
      this.#checkpoints.delete(step);
      this.#spare.push(tone);
    }
  }

  /** Makes the checkpoints that are still missing, to be filled; returns their steps. */
  #makeCheckpoints(keys: string[], kept: Set<number>): Set<number> {
    const fresh = new Set([...kept].filter((step) => !this.#checkpoints.has(step)));
    for (const step of fresh) {
      this.#checkpoints.set(step, {
        key: keys[step]!,
        tone: this.#spare.pop() ?? new Float32Array(this.#red.length),
        histogram: undefined,
      });
    }
    this.#spare.length = Math.min(this.#spare.length, MOST_SPARE);
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

  #showChange(rgba: Uint8Array, dithered: boolean): void {
    const [entering, leaving] = [this.#toneAt(this.#hand.first), this.#toneAt(this.#hand.end)];
    const change = new Float32Array(this.#machine.capacity);
    this.#forBands((first, end, y, rows) => {
      for (let i = first; i < end; i++) change[i - first] = Math.min(Math.max(0.5 + CHANGE_GAIN * (leaving[i]! - entering[i]!), 0), 1);
      this.#machine.put("tone", change, 0, end - first);
      this.#showTones(rgba, first, y, rows, dithered);
    });
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

type UseBand = (first: number, end: number, y: number, rows: number) => void;

/** Runs in sweeps over the picture, each beginning with the mix, at `start`, or at a barrier; one at least, if without runs. */
function sweepsOf(runs: readonly Run[], barriers: ReadonlySet<number>, start: number | undefined): Run[][] {
  const sweeps: Run[][] = [[]];
  for (const run of runs) {
    const mustBegin = barriers.has(run.from) && (sweeps.at(-1)!.length > 0 || start === undefined);
    if (mustBegin) sweeps.push([run]);
    else sweeps.at(-1)!.push(run);
  }
  return sweeps;
}

let keysMade = 0;
function uniqueKey(): string {
  return String(++keysMade);
}
