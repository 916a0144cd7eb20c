import type { CompiledMask, CompiledPass, CompiledPlan } from "@/core/plan/compilePlan";
import { linearP3ToOklab, oklabToLch } from "@/core/colour/oklab";
import type { Matrix3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Planes } from "@/core/kernels/reference";
import { gridOf } from "@/core/region/grid";
import { areaReduceRows, fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { surroundingsOf } from "@/core/spatial/slicedBase";
import { ditherRow, NO_DITHER } from "@/core/view/dither";
import { drawScreens } from "@/core/view/screens";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { applyRun, type Bases, type StepBase } from "./applyRun";
import { BAND_PIXELS, BandMachine, type BandPlace } from "./bandMachine";
import { Checkpoints, keysAfter, NO_KEYS, passPainted, type StepKeys } from "./checkpoints";
import { FUSED_KNOTS, TableFuser } from "./fuseTables";
import { rowsSince, type GrownPlane, type Rows } from "./grownPlane";
import { ANALYSIS_EDGE, gateBase, type Analysis } from "./maskBases";
import { isGatheredOnTheWay, isReadOnTheWay, needsBases, type MaskBases } from "./maskKeys";
import { gateTableOf, type MaskPicture } from "./maskPlane";
import { gathers, NO_HAND, runsOf, sweepsOf, type Hand, type Run } from "./runs";
import { StageMasks, type ShownMask } from "./stageMasks";
import type { PointReading, Showing, StageHistograms, StagePlace, StopsOf } from "./stageTypes";

/** Tones are read from the mean of a square this many pixels to each side. */
const READING_REACH = 1;
/** How much a change of tone is enlarged where it is shown alone: a zone up is a fifth of the way to white. */
const CHANGE_GAIN = 2;
/** How far a painted stop lies from mid grey where the map is shown alone: half a stop is three quarters of a zone. */
const MAP_GAIN = 0.15;
const COLOURS = ["red", "green", "blue"] as const;

/**
 * A picture, or a part of one, held ready for quick re-rendering: linear colour once decoded, and the
 * tones around the passes in hand and before every spatial step, so that a move under the hand runs from there on.
 *
 * Memory  12 bytes a pixel for colour, 8 more once hues are moved, 4 for each checkpoint: at most four and one for each pass that
 *         gathers; masks and their shapes up to a fixed size.
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
  readonly #masks: StageMasks;
  /** The picture small, from which masks are gathered. */
  #small: Stage | undefined;
  /** Tones after step i: 0 is the mix, i is pass i. */
  readonly #checkpoints: Checkpoints;
  #keys: StepKeys = NO_KEYS;
  /** The versions of stops that the tones after their passes were made with. */
  readonly #exposed = new Map<number, number>();
  /** What passes need of the whole of what enters them, with the key of those tones. */
  #bases = new Map<number, { key: string; base: StepBase }>();
  #plan: CompiledPlan | undefined;
  #hand: Hand = NO_HAND;

  private constructor(
    planes: Planes,
    readonly size: Size,
    readonly toP3: Matrix3,
    place?: StagePlace,
  ) {
    this.#red = planes.red;
    this.#green = planes.green;
    this.#blue = planes.blue;
    this.#checkpoints = new Checkpoints(planes.red.length);
    this.#place = place ?? { x: 0, y: 0, whole: size };
    this.#masks = new StageMasks(gridOf(size, this.#place.x, this.#place.y, this.#place.whole), this.#maskPicture(), (plan) =>
      this.#analysed(plan),
    );
    this.#rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    this.#machine = new BandMachine(this.#rowsInBand * size.width, FUSED_KNOTS);
    this.#machine.setGamut(toP3);
  }

  /** A stage from stored levels: interleaved RGB, row after row. `place` where they are a part of a picture. */
  static fromLevels(levels: Uint8Array | Uint16Array, size: Size, space: SourceSpace, place?: StagePlace): Stage {
    const pixels = size.width * size.height;
    const planes = { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
    const stage = new Stage(planes, size, space.toP3, place);
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
    return new Stage({ red: reduce(this.#red), green: reduce(this.#green), blue: reduce(this.#blue) }, size, this.toP3);
  }

  /**
   * Renders a plan as it is to be shown: opaque pixels, 4 bytes each, in the buffer given where it fits.
   * A part of a picture cannot see its surroundings: they are given to it, from a stage of the whole.
   */
  render(
    plan: CompiledPlan,
    hand: Hand | undefined,
    showing: Showing,
    { buffer, bases }: { buffer?: ArrayBuffer | undefined; bases?: Bases | undefined } = {},
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
    if (showing.of === "mask") this.#showPlane(rgba, this.shownMask(showing.mask!, bases), showing.dithered);
    if (showing.of === "exposure") this.#showPlane(rgba, this.#stopsMap(showing.exposed), showing.dithered);
    if (showing.screens && showing.of === "print") drawScreens(rgba, this.#toneAt(plan.passes.length), this.size.width);
    return new Uint8ClampedArray(rgba.buffer);
  }

  /** Brings the tones up to date with a plan, without making pixels. */
  update(plan: CompiledPlan, hand: Hand | undefined, bases?: Bases): void {
    this.#prepare(plan, hand);
    this.#run(plan, bases);
  }

  /** The tones after a step of the plan rendered last that was kept: around the passes in hand, and in the end. Not to be changed. */
  tonesAfter(step: number): Float32Array {
    return this.#toneAt(step);
  }

  /** What a part of this picture needs to render the plan rendered last as the whole does. */
  bases(): Bases {
    return { steps: new Map([...this.#bases].map(([step, { base }]) => [step, base])), masks: this.#masks.bases };
  }

  /** What a part of this picture needs to show a mask on the tones after a step, kept of the plan rendered last. */
  basesToShow({ mask }: ShownMask, step: number): Bases {
    const { steps, masks } = this.bases();
    if (!mask) return { steps, masks };
    const gate = isGatheredOnTheWay(mask.gate) ? gateBase(mask.gate, this.#toneAt(step), this.size) : undefined;
    const surroundings = steps.get(step)?.surroundings;
    return {
      steps: new Map([...steps, [step, { surroundings, gate }]]),
      masks: needsBases(mask) ? this.#masks.gather([mask]) : masks,
    };
  }

  /** A mask with all it depends on, on the plan rendered last: 0–1 for each pixel. */
  shownMask(shown: ShownMask, given?: Bases): Float32Array {
    const { first } = this.#hand;
    return this.#masks.shown(shown, this.#toneAt(first), given?.masks, given?.steps.get(first)?.gate);
  }

  /** A mask on the plan rendered last, as far as place and original tell it. Not to be changed. */
  mask(mask: CompiledMask): Float32Array {
    return this.#masks.mask(mask);
  }

  #maskPicture(): MaskPicture {
    return { red: this.#red, green: this.#green, blue: this.#blue, mixed: () => this.#toneAt(0), hues: () => this.#findHues() };
  }

  /** The whole picture small, mixed by a plan. */
  #analysed(plan: CompiledPlan): Analysis {
    this.#small ??= this.reducedTo(fitLongEdge(this.size, ANALYSIS_EDGE));
    const small = this.#small;
    small.update({ ...plan, passes: [] }, undefined);
    return { ...small.size, ...small.#maskPicture() };
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
   * A pass that gathers needs the whole of what enters it, so the sweep over the bands begins anew there, unless what it
   * needs is given. Masks may need the whole mix, so where there are any it is made first.
   */
  #run(plan: CompiledPlan, given: Bases | undefined, useBand?: UseBand): void {
    const last = plan.passes.length;
    const before = this.#keys;
    const keys = (this.#keys = keysAfter(before, plan));
    this.#masks.follow(plan, keys.steps[0]!);
    const barriers = new Set(given ? [] : plan.passes.flatMap((pass, i) => (gathers(pass) ? [i] : [])));
    for (const step of this.#bases.keys()) if (!barriers.has(step)) this.#bases.delete(step);
    const kept = new Set([0, last, this.#hand.first, this.#hand.end, ...barriers]);
    const painted = passPainted(before, keys);
    const runs = runsOf(plan, this.#hand, this.#fuser);
    if (painted !== undefined && Math.max(...barriers) <= painted && this.#checkpoints.hold([...kept, painted], before)) {
      if (this.#runPainted(plan, painted, runs, given, useBand)) return;
    }
    const start = this.#checkpoints.startStep(keys, kept);
    const fresh = this.#checkpoints.renew(keys, kept, start);
    if (!useBand && fresh.size === 0) return;
    const isMasked = plan.passes.some(({ step, mask }) => step && mask);
    let masks = given?.masks;
    sweepsOf(
      runs.filter(({ from }) => from >= (start ?? 0)),
      isMasked ? new Set([0, ...barriers]) : barriers,
      start,
    ).forEach((sweep, i, sweeps) => {
      const source = i === 0 && start === undefined ? undefined : this.#toneAt(sweep[0]?.from ?? start!);
      if (source && isMasked) masks ??= this.#masks.gather();
      const laid = sweep.map((run) => this.#layRun(plan, run, given, masks));
      this.#sweep(laid, source, fresh, i === sweeps.length - 1 ? useBand : undefined);
    });
  }

  /** Where a pass was painted on and nothing else changed, only the bands that were painted over are done anew; false where that may be all. */
  #runPainted(plan: CompiledPlan, pass: number, runs: readonly Run[], given: Bases | undefined, useBand: UseBand | undefined): boolean {
    const earlier = this.#exposed.get(pass);
    const laid = runs.filter(({ from }) => from >= pass).map((run) => this.#layRun(plan, run, given, given?.masks));
    const rows = laid[0]?.painted && rowsSince(laid[0].painted, earlier);
    if (!rows) return false;
    this.#sweep(laid, this.#toneAt(pass), this.#checkpoints.carryOver(this.#keys, pass), useBand, rows);
    return true;
  }

  /** A run with its mask laid out, and what it needs of the whole picture. */
  #layRun(plan: CompiledPlan, run: Run, given: Bases | undefined, masks: MaskBases | undefined): LaidRun {
    const acts = run.tables.length > 0 || run.spatial || run.exposure;
    const base = !acts ? undefined : given ? given.steps.get(run.from) : gathers(plan.passes[run.from]!) ? this.#gather(run) : undefined;
    const mask = acts && run.mask ? run.mask : undefined;
    const painted = run.exposure && this.#masks.stops(plan.passes[run.from]!.id, run.exposure.move);
    if (painted) this.#exposed.set(run.from, painted.version);
    return {
      ...run,
      plane: mask && this.#masks.mask(mask, masks),
      added: mask && this.#masks.repair(mask, masks),
      base,
      painted,
    };
  }

  /** The stops a pass gives to places; undefined where it gives none. Not to be changed. */
  stops({ id, move }: StopsOf): Float32Array | undefined {
    return this.#masks.stops(id, move)?.plane;
  }

  /** Stops as tones around mid grey. */
  #stopsMap(exposed: StopsOf | undefined): Float32Array {
    const stops = exposed && this.stops(exposed);
    const map = new Float32Array(this.#red.length).fill(0.5);
    if (stops) for (let i = 0; i < map.length; i++) map[i] = Math.min(Math.max(0.5 + MAP_GAIN * stops[i]!, 0), 1);
    return map;
  }

  /** The single pass in hand. */
  #passInHand(): CompiledPass | undefined {
    return this.#hand.end - this.#hand.first === 1 ? this.#plan?.passes[this.#hand.first] : undefined;
  }

  #maskAt(x: number, y: number): number | undefined {
    const mask = this.#passInHand()?.mask;
    return mask && this.#masks.laidMask(mask)?.[y * this.size.width + x];
  }

  /** Stops given to a pixel by the pass in hand; undefined where it gives none. */
  #stopsAt(x: number, y: number): number | undefined {
    const pass = this.#passInHand();
    if (pass?.step?.kind !== "exposure") return undefined;
    return this.#masks.stops(pass.id, pass.step.move)?.plane[y * this.size.width + x];
  }

  /**
   * Runs over all bands, from the source colours or from the tones given, filling the checkpoints passed on the way. Where only
   * some rows changed, the other bands stay as they are.
   */
  #sweep(runs: readonly LaidRun[], source: Float32Array | undefined, fresh: ReadonlySet<number>, useBand?: UseBand, changed?: Rows): void {
    const machine = this.#machine;
    const keep = (step: number, first: number) => fresh.has(step) && machine.take("tone", this.#toneAt(step), first);
    this.#forBands((first, end, y, rows) => {
      if (changed && (changed.to <= y || changed.from >= y + rows)) {
        if (useBand) machine.put("tone", this.#toneAt(this.#plan!.passes.length), first, end);
        return useBand?.(first, end, y, rows);
      }
      if (source) machine.put("tone", source, first, end);
      else {
        this.#mixBand(first, end);
        keep(0, first);
      }
      for (const { to, plane, added, base, painted, ...run } of runs) {
        if (plane) machine.put("mask", plane, first, end);
        if (painted) machine.put("stops", painted.plane, first, end);
        applyRun(machine, run, { base, added, first, isPainted: !!painted }, this.#bandPlace(y));
        keep(to, first);
      }
      useBand?.(first, end, y, rows);
    });
  }

  /** What a run needs of the whole of what enters it, gathered anew only where something before it changed. */
  #gather({ from, spatial, mask }: Run): StepBase {
    const { key, tone } = this.#checkpoints.at(from);
    const gate = isGatheredOnTheWay(mask?.gate) ? mask.gate : undefined;
    const wanted = JSON.stringify([key, spatial?.spread, gate]);
    const known = this.#bases.get(from);
    if (known?.key === wanted) return known.base;
    const base = {
      surroundings: spatial && surroundingsOf(tone, this.size, spatial.spread),
      gate: gate && gateBase(gate, tone, this.size),
    };
    this.#bases.set(from, { key: wanted, base });
    return base;
  }

  #bandPlace(y: number): BandPlace {
    const { x, y: top, whole } = this.#place;
    return { x, y: top + y, width: this.size.width, whole };
  }

  #toneAt(step: number): Float32Array {
    return this.#checkpoints.at(step).tone;
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
      painted: this.#stopsAt(x, y),
      masked: this.#maskAt(x, y),
      ...oklabToLch(linearP3ToOklab([mean(this.#red), mean(this.#green), mean(this.#blue)])),
    };
  }

  /** What each pass of a plan adds to the tones: as many planes as passes. Keeps nothing; for small stages. */
  changes(plan: CompiledPlan): Float32Array[] {
    this.update({ ...plan, passes: [] }, undefined);
    this.#masks.follow(plan, this.#keys.steps[0]!);
    const masks = this.#masks.gather();
    let before = this.#toneAt(0);
    return plan.passes.map((pass) => {
      if (!pass.step) return new Float32Array(before.length);
      const after = this.#applied(pass, before, masks);
      const change = after.map((tone, i) => tone - before[i]!);
      before = after;
      return change;
    });
  }

  #applied({ id, step, mask }: CompiledPass, tone: Float32Array, masks: MaskBases): Float32Array {
    const out = new Float32Array(tone.length);
    const spatial = step?.kind === "spatial" ? step : undefined;
    const tables = step?.kind === "tone" ? [step.table] : [];
    const exposure = step?.kind === "exposure" ? step : undefined;
    const painted = exposure && this.#masks.stops(id, exposure.move);
    const plane = mask && this.#masks.mask(mask, masks);
    const added = mask && this.#masks.repair(mask, masks);
    const gateTable = isReadOnTheWay(mask?.gate) ? gateTableOf(mask.gate) : undefined;
    const base: StepBase = {
      surroundings: spatial && surroundingsOf(tone, this.size, spatial.spread),
      gate: isGatheredOnTheWay(mask?.gate) ? gateBase(mask.gate, tone, this.size) : undefined,
    };
    this.#forBands((first, end, y) => {
      this.#machine.put("tone", tone, first, end);
      if (plane) this.#machine.put("mask", plane, first, end);
      if (painted) this.#machine.put("stops", painted.plane, first, end);
      applyRun(
        this.#machine,
        { spatial, exposure, tables, mask, gateTable },
        { base, added, first, isPainted: !!painted },
        this.#bandPlace(y),
      );
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

  #histogram(step: number): Uint32Array {
    const checkpoint = this.#checkpoints.at(step);
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
    const change = leaving.map((tone, i) => Math.min(Math.max(0.5 + CHANGE_GAIN * (tone - entering[i]!), 0), 1));
    this.#showPlane(rgba, change, dithered);
  }

  #showPlane(rgba: Uint8Array, plane: Float32Array, dithered: boolean): void {
    this.#forBands((first, end, y, rows) => {
      this.#machine.put("tone", plane, first, end);
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

/** A run ready for the bands: its mask laid out, what it gathered. */
type LaidRun = Run & {
  painted: GrownPlane | undefined;
  plane: Float32Array | undefined;
  added: Float32Array | undefined;
  base: StepBase | undefined;
};

type UseBand = (first: number, end: number, y: number, rows: number) => void;
