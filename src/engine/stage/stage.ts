import type { Planes } from "@/core/kernels/planes";
import type { StopsOf } from "../masks/stopsPlanes";
import type { Part } from "../machine/grainMachine";
import { compiledBefore, type CompiledMask, type CompiledPass, type CompiledPlan } from "@/core/plan/compilePlan";
import { rowsInside, type Placing } from "@/core/frame/frame";
import type { Vector3 } from "@/core/colour/matrix3";
import type { Chroma } from "@/core/colour/printColour";
import { linearP3ToOklab, oklabToLch } from "@/core/colour/oklab";
import { gridOf } from "@/core/spatial/grid";
import type { Size } from "@/core/spatial/areaReduce";
import { dustLook } from "@/core/spots/dustLook";
import { drawScreens } from "@/core/view/screens";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import type { Bases, ColourBases } from "../evaluate/bases";
import type { ChromaPlanes } from "../machine/chromaBand";
import { gateBase, type Analysis } from "../masks/maskBases";
import { isGatheredOnTheWay, needsBases } from "../masks/maskKeys";
import { type MaskPicture } from "../masks/maskPlane";
import { NO_PASSES, type ActivePasses } from "../evaluate/runs";
import { forBandsOf, pixelsIn, showRows } from "../machine/pixels";
import { mapRows } from "../machine/printRows";
import { Source } from "../source/source";
import { StageColour } from "./stageColour";
import { StageMasks, type ShownMask } from "../masks/stageMasks";
import { PlanEvaluator, type Evaluated } from "./planEvaluator";
import { looksOf, type PointReading, type Showing, type StageHistograms } from "./stageTypes";
import type { StopsPlane, TonePlane } from "@/core/units";

/** Tones are read from the mean of a square this many pixels to each side. */
const READING_REACH = 1;
/** How much a change of tone is enlarged where it is shown alone: a zone up is a fifth of the way to white. */
const CHANGE_GAIN = 2;
/** How far a painted stop lies from mid grey where the map is shown alone: half a stop is three quarters of a zone. */
const MAP_GAIN = 0.15;

/**
 * One view of a picture, or of a part of one, held ready for quick re-rendering: the tones around the passes in hand and before every step
 * that looks at surroundings of the plan rendered last, so that a move under the hand runs from there on. Several stages of one source each
 * keep their own plan.
 *
 * A picture that was reduced is rendered twice where it has grain, once for each of the two tones that stand for what is inside a
 * pixel, and shown as the mean of their light. Tones are then held in planes of twice the pixels, the darker before the lighter.
 *
 * Memory  4 bytes a pixel for each checkpoint, with grain 12: at most four and one for each pass that gathers.
 */
export class Stage {
  readonly #masks: StageMasks;
  readonly #colour: StageColour;
  /** The picture small, from which masks are gathered. */
  #small: Stage | undefined;
  readonly #evaluator: PlanEvaluator;
  /** Where the print lies on the source; absent where it is all of it. */
  #print: Placing | undefined;
  #inside: ReturnType<typeof rowsInside> | undefined;

  constructor(readonly source: Source) {
    const { place, size } = source;
    this.#masks = new StageMasks(
      gridOf(size, place.x, place.y, place.whole),
      (part) => this.#maskPicture(part),
      () => this.#analysed(this.#now.plan),
      source.laid,
    );
    this.#colour = new StageColour(source, gridOf(size, place.x, place.y, place.whole));
    this.#evaluator = new PlanEvaluator(source, this.#masks, this.#colour);
  }

  /** A stage of a picture from stored levels. */
  static fromLevels(...levels: Parameters<typeof Source.fromLevels>): Stage {
    return new Stage(Source.fromLevels(...levels));
  }

  /** A stage of the same picture smaller. */
  reducedTo(size: Size): Stage {
    return new Stage(this.source.reducedTo(size));
  }

  get size(): Size {
    return this.source.size;
  }

  /**
   * Renders a plan as it is to be shown: opaque pixels, 4 bytes each, in the buffer given where it fits; of the print where it lies on the
   * source, absent where it is all of it. A part of a picture cannot see its surroundings: they are given to it, from a stage of the whole.
   */
  render(
    plan: CompiledPlan,
    active: ActivePasses | undefined,
    showing: Showing,
    { buffer, bases, print, isMoving }: RenderOptions = {},
  ): Uint8ClampedArray<ArrayBuffer> {
    if (showing.of === "colour") return this.#renderColour(plan, showing, { buffer, bases, print });
    const { machine } = this.source;
    this.#prepare(plan, active, { print, bases, isMoving });
    machine.output.setTable(showing.table);
    const size = print ?? this.size;
    const pixels = size.width * size.height;
    const rgba = pixelsIn(buffer, pixels);
    // What is cut out, and what the passes in hand change, are known only when all of it is.
    const isShownOnTheWay = !print && showing.of === "print";
    const isColoured = showing.of === "print" && showing.coloured !== undefined && this.#evaluator.isColoured;
    if (showing.coloured) machine.output.setSpace(showing.coloured, 8);
    this.#evaluator.evaluate(isShownOnTheWay ? { rgba, looks: looksOf(showing), isColoured } : undefined);
    if (!isShownOnTheWay) {
      const shown = { tone: this.#shownPlane(showing, bases), chroma: isColoured ? this.chromaAfter(plan.passes.length) : undefined };
      const cut = mapRows(shown, (plane) => this.#cut(plane));
      showRows(machine, rgba, size, cut, showing);
    }
    if (showing.screens && showing.of === "print") drawScreens(rgba, this.#cut(this.tonesAfter(plan.passes.length)), size.width);
    return new Uint8ClampedArray(rgba.buffer);
  }

  /** The colour that is mixed. No tone is made: they stay those of the plan rendered last. */
  #renderColour(plan: CompiledPlan, { table }: Showing, { buffer, bases, print }: RenderOptions): Uint8ClampedArray<ArrayBuffer> {
    const colour = this.#colour.of(undefined, plan, bases?.colour);
    const { machine, cutter } = this.source;
    machine.output.setTable(table);
    const size = print ?? this.size;
    const rgba = pixelsIn(buffer, size.width * size.height);
    const cut = (plane: Float32Array) => (print ? cutter.cut(plane, this.size, print) : plane);
    const planes = { red: cut(colour.red), green: cut(colour.green), blue: cut(colour.blue) };
    forBandsOf(machine, size, (first, end) => {
      for (const name of ["red", "green", "blue"] as const) machine.put(name, planes[name], first, end);
      rgba.set(machine.output.colourRgba(), 4 * first);
    });
    return new Uint8ClampedArray(rgba.buffer);
  }

  /** Brings the tones up to date with a plan, without making pixels. */
  update(plan: CompiledPlan, active: ActivePasses | undefined, { bases, print }: Omit<RenderOptions, "buffer"> = {}): void {
    this.#prepare(plan, active, { print, bases });
    this.#evaluator.evaluate();
  }

  /** A plane of the source as far as it is in the print. */
  #cut(plane: Float32Array): Float32Array {
    return this.#print ? this.source.cutter.cut(plane, this.size, this.#print) : plane;
  }

  /** The tones after a step of the plan rendered last. Not to be changed. */
  tonesAfter(step: number): TonePlane {
    return this.#evaluator.tonesAfter(step);
  }

  /** The colour laid on the tones after a step; undefined where there is none. Not to be changed. */
  chromaAfter(step: number): ChromaPlanes | undefined {
    return this.#evaluator.chromaAfter(step);
  }

  /** What a part of this picture needs to change colour as a plan does, whether it was rendered or not. */
  basesBeforeMix(plan: CompiledPlan): ColourBases {
    this.source.heal(plan);
    return this.#colour.gather(plan);
  }

  /** What a part of this picture needs to render the plan rendered last as the whole does. */
  bases(): Bases {
    return { colour: this.#colour.bases, steps: this.#evaluator.stepBases, masks: this.#masks.bases };
  }

  /** What a part of this picture needs to show a mask on the tones after a step, kept of the plan rendered last. */
  basesToShow({ mask, beforeMix }: ShownMask, step: number): Bases {
    const { colour, steps, masks } = this.bases();
    if (!mask) return { colour, steps, masks };
    if (beforeMix) return { colour: { ...colour, masks: this.#colour.masks.gather([mask]) }, steps, masks };
    const gate = isGatheredOnTheWay(mask.gate) ? gateBase(mask.gate, this.tonesAfter(step), this.size) : undefined;
    const surroundings = steps.get(step)?.surroundings ?? [];
    return {
      colour,
      steps: new Map([...steps, [step, { surroundings, gate }]]),
      masks: needsBases(mask) ? this.#masks.gather([mask]) : masks,
    };
  }

  /** A mask with all it depends on, on the plan rendered last: 0–1 for each pixel. */
  shownMask(shown: ShownMask, given?: Bases): Float32Array {
    const { first } = this.#now.active;
    if (shown.beforeMix) return this.#colour.masks.shown(shown, this.tonesAfter(first), given?.colour.masks, undefined);
    return this.#masks.shown(shown, this.tonesAfter(first), given?.masks, given?.steps.get(first)?.gate);
  }

  /** A mask on the plan rendered last, as far as place and original tell it. Not to be changed. */
  mask(mask: CompiledMask): Float32Array {
    return this.#masks.mask(mask);
  }

  #maskPicture(part?: Part): MaskPicture {
    const mixed = () => (part ? this.source.partOf(this.#evaluator.checkpoint(0).tone, part) : this.tonesAfter(0));
    return this.source.seen(part, this.#now.plan.clean, mixed);
  }

  /** The whole picture small, mixed by a plan. */
  #analysed(plan: CompiledPlan): Analysis {
    // Cleaned colour that came since is in the source's small picture alone.
    if (this.#small?.source !== this.source.small) this.#small = new Stage(this.source.small);
    const small = this.#small;
    small.update({ ...plan, passes: [] }, undefined);
    return { ...small.size, ...small.#maskPicture() };
  }

  #prepare(plan: CompiledPlan, active: ActivePasses | undefined, { print, bases, isMoving = false }: Omit<RenderOptions, "buffer">): void {
    if (!isSamePlacing(print, this.#print)) {
      this.#print = print;
      this.#inside = print && rowsInside(print, this.size);
      this.#evaluator.forgetCounts();
    }
    this.#evaluator.follow({ plan, active: active ?? NO_PASSES, given: bases, isMoving });
  }

  /** What was rendered last; nothing asks before anything was. */
  get #now(): Evaluated {
    return this.#evaluator.now!;
  }

  /** The stops a pass gives to places; undefined where it gives none. Not to be changed. */
  stops(of: StopsOf): StopsPlane | undefined {
    return this.#masks.stops(of)?.plane;
  }

  /** Stops as tones around mid grey. */
  #stopsMap(exposed: StopsOf | undefined): Float32Array {
    const stops = exposed && this.stops(exposed);
    const map = new Float32Array(this.source.pixels).fill(0.5);
    if (stops) for (let i = 0; i < map.length; i++) map[i] = Math.min(Math.max(0.5 + MAP_GAIN * stops[i]!, 0), 1);
    return map;
  }

  /** The single pass in hand. */
  #passInHand(): CompiledPass | undefined {
    const { plan, active } = this.#now;
    return active.end - active.first === 1 ? plan.passes[active.first] : undefined;
  }

  #maskAt(x: number, y: number): number | undefined {
    const mask = this.#passInHand()?.mask;
    return mask && this.#masks.laidMask(mask)?.[y * this.size.width + x];
  }

  /** Stops given to a pixel by the pass in hand; undefined where it gives none. */
  #stopsAt(x: number, y: number): number | undefined {
    const pass = this.#passInHand();
    if (pass?.step?.kind !== "stops") return undefined;
    return this.#masks.stops({ id: pass.id, placed: pass.step.placed, frame: this.#now.plan.frame })?.plane[y * this.size.width + x];
  }

  /** Histograms around the passes in hand of the plan rendered last; undefined before any. */
  histograms(): StageHistograms | undefined {
    if (!this.#evaluator.now) return undefined;
    const { plan, active } = this.#now;
    return {
      entering: this.#histogram(active.first),
      leaving: this.#histogram(active.end),
      finished: this.#histogram(plan.passes.length),
    };
  }

  /** The tones and colour around a pixel of the plan rendered last; undefined before any. */
  readPoint(x: number, y: number): PointReading | undefined {
    if (!this.#evaluator.now) return undefined;
    const { plan, active } = this.#now;
    const mean = (plane: Float32Array) => this.source.meanAround(plane, x, y, READING_REACH);
    const tone = (step: number) => mean(this.tonesAfter(step));
    const colour = this.source.colourToMix(undefined, plan.clean);
    return {
      mixed: tone(0),
      entering: tone(active.first),
      leaving: tone(active.end),
      finished: tone(plan.passes.length),
      painted: this.#stopsAt(x, y),
      masked: this.#maskAt(x, y),
      printed: this.#printedAt(mean),
      ...oklabToLch(linearP3ToOklab([mean(colour.red), mean(colour.green), mean(colour.blue)])),
    };
  }

  /** The colour of the finished print by the means of its planes; undefined where no pass lays any. */
  #printedAt(mean: (plane: Float32Array) => number): Chroma | undefined {
    const chroma = this.chromaAfter(this.#now.plan.passes.length);
    return chroma && { a: mean(chroma.a), b: mean(chroma.b) };
  }

  /** The colour a plan mixes around a pixel, so many to either side, in linear P3. */
  colourAt(plan: CompiledPlan, x: number, y: number, reach: number): Vector3 {
    const { red, green, blue } = this.#colour.of(undefined, plan);
    const mean = (plane: Float32Array) => this.source.meanAround(plane, x, y, reach);
    return [mean(red), mean(green), mean(blue)];
  }

  /** The colour a plan mixes, in linear P3, and the tones it is mixed to. Not to be changed. */
  mixedBy(plan: CompiledPlan): { colour: Planes; tones: TonePlane } {
    this.update({ ...plan, passes: [] }, undefined);
    return { colour: this.#colour.of(undefined, plan), tones: this.tonesAfter(0) };
  }

  /** What each pass of a plan adds to the tones: as many planes as passes. For small stages. */
  changes(plan: CompiledPlan): Float32Array[] {
    const tones = Array.from({ length: plan.passes.length + 1 }, (_, end) => {
      // The last pass is in hand each time, so that it goes on from the tones before it.
      this.update(compiledBefore(plan, end), { first: Math.max(end - 1, 0), end });
      return this.tonesAfter(end).slice();
    });
    return plan.passes.map((_, i) => tones[i + 1]!.map((tone, k) => tone - tones[i]![k]!));
  }

  #histogram(step: number): Uint32Array {
    const checkpoint = this.#evaluator.checkpoint(step);
    if (checkpoint.histogram) return checkpoint.histogram;
    const tone = this.tonesAfter(step);
    const counts = new Uint32Array(HISTOGRAM_BINS);
    const count = (from: number, to: number) => {
      this.source.machine.put("tone", tone, from, to);
      this.source.machine.countTones(counts);
    };
    if (!this.#inside) for (const { first, end } of this.source.bands) count(first, end);
    else forRowsInside(this.#inside, this.size.width, count);
    return (checkpoint.histogram = counts);
  }

  /** The mean of a plane of the source over the print. */
  meanInPrint(plane: Float32Array): number {
    let [sum, pixels] = [0, 0];
    const add = (from: number, to: number) => {
      for (let i = from; i < to; i++) sum += plane[i]!;
      pixels += to - from;
    };
    if (this.#inside) forRowsInside(this.#inside, this.size.width, add);
    else add(0, plane.length);
    return sum / Math.max(pixels, 1);
  }

  /** What is shown in tones. */
  #shownPlane(showing: Showing, bases: Bases | undefined): Float32Array {
    switch (showing.of) {
      case "change":
        return this.#change();
      case "mask":
        return this.shownMask(showing.mask!, bases);
      case "dust":
        return this.#dust();
      case "stops":
        return this.#stopsMap(showing.exposed);
      case "print":
      case "colour":
        return this.tonesAfter(this.#now.plan.passes.length);
    }
  }

  #dust(): Float32Array {
    const { whole } = this.source.place;
    return dustLook(this.source.plainTones(undefined), this.size, Math.max(whole.width, whole.height));
  }

  /** What the passes in hand change, on mid grey. */
  #change(): Float32Array {
    const [entering, leaving] = [this.tonesAfter(this.#now.active.first), this.tonesAfter(this.#now.active.end)];
    return leaving.map((tone, i) => Math.min(Math.max(0.5 + CHANGE_GAIN * (tone - entering[i]!), 0), 1));
  }
}

function forRowsInside({ from, end }: ReturnType<typeof rowsInside>, width: number, work: (from: number, to: number) => void): void {
  for (let row = 0; row < end.length; row++) if (end[row]! > from[row]!) work(row * width + from[row]!, row * width + end[row]!);
}

/** What a render is given besides its plan. */
interface RenderOptions {
  buffer?: ArrayBuffer | undefined;
  bases?: Bases | undefined;
  print?: Placing | undefined;
  /** Whether it is one of many under a moving hand: what nobody asks for in between is not kept. */
  isMoving?: boolean | undefined;
}

const isSamePlacing = (a: Placing | undefined, b: Placing | undefined) => a === b || JSON.stringify(a) === JSON.stringify(b);
