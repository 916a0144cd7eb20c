import type { Planes } from "@/core/kernels/planes";
import type { LaidPlanes } from "../masks/stageMasks";
import type { SourcePlace } from "../machine/surroundingsBand";
import type { Part } from "../machine/grainMachine";
import { CoreError } from "@/core/errors";
import type { Matrix3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Grain } from "@/core/grain/grain";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { Area } from "@/core/spots/area";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { BAND_PIXELS, BandMachine } from "../machine/bandMachine";
import { betweenDecoded, colourOf, decodeLevels, reduceDecoded, reducePlainly, viewOf, type Decoded, type StoredLevels } from "./decoded";
import { FUSED_KNOTS } from "../machine/fuseTables";
import { ANALYSIS_EDGE } from "../masks/maskBases";
import type { Hues, OwnChroma } from "../machine/chromaBand";
import { PrintCutter } from "../machine/printCutter";
import type { MaskPicture } from "../masks/maskPlane";
import { Spotted } from "./spotted";
import { INLINE, type TaskRunner } from "../pool/taskRunner";
import { outputs, inputs } from "../tasks/bands";
import { output } from "../tasks/taskPlanes";
import type { Band, TaskName, Tasks } from "../tasks/tasks";
import type { TonePlane } from "@/core/units";

const GRAIN_PARTS: readonly Part[] = ["darker", "lighter"];
const WHOLE: readonly Part[] = [undefined];
const UNTOUCHED = { spots: [], spotsKey: "" };

/**
 * A picture, or a part of one, decoded: linear colour, and what inside each pixel it was reduced from. All that renders it shares it, and
 * the machine that works on one band of it at a time.
 *
 * Memory  12 bytes a pixel, 8 more once hues are looked at, and 12 once colour is returned; with grain 40 and 16; with cleaned colour as
 *         much again, and once more where a mix reads something between.
 *         Masks and their shapes up to a fixed size. Spots: see `Spotted`.
 */
export class Source {
  readonly place: SourcePlace;
  /** Of whichever stage works at the moment; nothing in it is anybody's afterwards. */
  readonly machine: BandMachine;
  readonly cutter = new PrintCutter();
  /** The bands it is worked on in. */
  readonly bands: readonly Band[];
  readonly #hues = new WeakMap<Planes, Hues>();
  readonly #chroma = new WeakMap<Planes, OwnChroma>();
  readonly #plainTones = new WeakMap<Planes, Float32Array>();
  #found: Decoded;
  #cleaned: Decoded | undefined;
  /** The picture's colours, and the cleaned ones, with their spots. */
  readonly #spotted: Spotted;
  #cleanedSpotted: Spotted | undefined;
  #healed: Pick<CompiledPlan, "spots" | "spotsKey"> = UNTOUCHED;
  #between: { amount: number; decoded: Decoded } | undefined;
  #small: Source | undefined;
  /** Shapes and masks laid out on it, by their keys, the newest last. */
  readonly laid: LaidPlanes = { shapes: new Map(), masks: new Map() };

  private constructor(
    found: Decoded,
    readonly size: Size,
    readonly toP3: Matrix3,
    place: SourcePlace | undefined,
    readonly runner: TaskRunner,
  ) {
    this.place = place ?? { x: 0, y: 0, whole: size };
    const rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    this.bands = bandsOf(size, rowsInBand);
    // A row of a print cut out of it may be as long as its diagonal.
    this.machine = new BandMachine(Math.max(rowsInBand * size.width, Math.ceil(Math.hypot(size.width, size.height)) + 1), FUSED_KNOTS);
    this.machine.setGamut(toP3);
    this.#found = found;
    this.#spotted = this.#spottedOf(found);
  }

  /**
   * From stored levels: interleaved RGB, row after row. `place` where they are a part of a picture; `grain`, packed, where they were
   * reduced. Whoever helps with it is in its runner.
   */
  static fromLevels(
    levels: StoredLevels["levels"],
    size: Size,
    space: SourceSpace,
    { place, grain, runner = INLINE }: { place?: SourcePlace | undefined; grain?: Uint32Array | undefined; runner?: TaskRunner } = {},
  ): Source {
    return new Source(decodeLevels({ levels, space, grain }, size), size, space.toP3, place, runner);
  }

  /** The picture's colours as found. */
  get colour(): Planes {
    return this.#found.colour;
  }

  get grain(): Grain | undefined {
    return this.#found.grain;
  }

  /** Gives the same pixels with their colours cleaned. */
  giveCleaned(stored: StoredLevels): void {
    this.#clean(decodeLevels(stored, this.size));
    this.#small = undefined;
  }

  #clean(cleaned: Decoded): void {
    this.#cleaned = cleaned;
    this.#cleanedSpotted = this.#spottedOf(cleaned);
    this.#cleanedSpotted.heal(this.#healed.spots);
    this.#between = undefined;
  }

  #spottedOf(decoded: Decoded): Spotted {
    const { x, y, whole } = this.place;
    return new Spotted([{ area: { x, y, ...this.size }, ...decoded }], whole);
  }

  /** Gives areas beside it, from which its spots are covered. */
  giveBeside(beside: readonly { area: Area; found: StoredLevels; cleaned: StoredLevels | undefined }[]): void {
    const decoded = (area: Area, stored: StoredLevels) => ({ area, ...decodeLevels(stored, area) });
    this.#spotted.add(beside.map(({ area, found }) => decoded(area, found)));
    this.#cleanedSpotted?.add(beside.flatMap(({ area, cleaned }) => (cleaned ? [decoded(area, cleaned)] : [])));
    this.#healed = UNTOUCHED;
  }

  /**
   * Covers what a plan covers of it, in place: all that is asked from now on is of that. What was taken from it before is of what was
   * covered then.
   */
  heal({ spots, spotsKey }: Pick<CompiledPlan, "spots" | "spotsKey">): void {
    if (spotsKey === this.#healed.spotsKey) return;
    this.#healed = { spots, spotsKey };
    this.#spotted.heal(spots);
    this.#cleanedSpotted?.heal(spots);
    // What others keep by these planes is of what they held before.
    this.#found = viewOf(this.#found);
    this.#cleaned &&= viewOf(this.#cleaned);
    this.#between = undefined;
    this.laid.masks.clear();
    this.#small?.heal(this.#healed);
  }

  /** A plan as far as it can be rendered here: without cleaned colour, mixed from what was found. */
  asFarAsGiven(plan: CompiledPlan): CompiledPlan {
    return this.#cleaned || plan.clean === 0 ? plan : { ...plan, clean: 0 };
  }

  /** The same picture smaller, area-averaged in linear light; what lies inside its pixels is their grain. Of whole pictures only. */
  reducedTo(size: Size): Source {
    return this.#reduced(size, reduceDecoded);
  }

  /**
   * The same without what lies inside its pixels: half the work, for frames whose detail is kept from others. Of parts too; with the spots
   * they have now.
   */
  reducedPlainly(size: Size): Source {
    const { x, y, whole } = this.place;
    if (whole.width === this.size.width && whole.height === this.size.height) return this.#reduced(size, reducePlainly);
    const [across, down] = [size.width / this.size.width, size.height / this.size.height];
    const place = { x: x * across, y: y * down, whole: { width: whole.width * across, height: whole.height * down } };
    const reduced = new Source(reducePlainly(this.#found, this.size, size), size, this.toP3, place, this.runner);
    reduced.#cleaned = this.#cleaned && reducePlainly(this.#cleaned, this.size, size);
    reduced.#healed = this.#healed;
    return reduced;
  }

  #reduced(size: Size, reduce: typeof reduceDecoded): Source {
    const healed = this.#healed;
    this.heal(UNTOUCHED); // it covers its own spots
    const reduced = new Source(reduce(this.#found, this.size, size), size, this.toP3, undefined, this.runner);
    if (this.#cleaned) reduced.#clean(reduce(this.#cleaned, this.size, size));
    this.heal(healed);
    return reduced;
  }

  /** As small as masks are gathered from. */
  get small(): Source {
    if (!this.#small) {
      const small = this.reducedTo(fitLongEdge(this.size, ANALYSIS_EDGE));
      small.heal(this.#healed);
      this.#small = small;
    }
    return this.#small;
  }

  get pixels(): number {
    return this.colour.red.length;
  }

  /** What of the picture's pixels is rendered by itself. */
  get parts(): readonly Part[] {
    return this.grain ? GRAIN_PARTS : WHOLE;
  }

  colourOf(part: Part): Planes {
    return colourOf(this.#found, part);
  }

  /** What a mix reads, cleaned so far. Errors: CoreError `bad_plan` where there is no cleaned colour. */
  colourToMix(part: Part, clean: number): Planes {
    if (clean === 0) return this.colourOf(part);
    const cleaned = this.#cleaned;
    if (!cleaned) throw new CoreError("bad_plan", "the plan reads cleaned colour, and none was given");
    if (clean === 1) return colourOf(cleaned, part);
    if (this.#between?.amount !== clean) this.#between = { amount: clean, decoded: betweenDecoded(this.#found, cleaned, clean) };
    return colourOf(this.#between.decoded, part);
  }

  /** Where a part of the pixels begins in a plane of tones. */
  offsetOf(part: Part): number {
    return part === "lighter" ? this.pixels : 0;
  }

  /** A plane of tones as far as it is of a part of the pixels. */
  partOf(tones: Float32Array, part: Part): Float32Array {
    const from = this.offsetOf(part);
    return tones.subarray(from, from + this.pixels);
  }

  /** Has work done on bands, all of them unless told which. */
  perform<K extends TaskName>(name: K, job: Tasks[K], bands = this.bands): void {
    this.runner.perform(this.machine, name, job, bands);
  }

  /** The colours are no longer what they were: what is known of them is found anew. */
  forgetHues(colour: Planes): void {
    this.#hues.delete(colour);
    this.#chroma.delete(colour);
  }

  /** The tone of the luminance as found. Not to be changed. */
  plainTones(part: Part): TonePlane {
    const colour = this.colourOf(part);
    const known = this.#plainTones.get(colour);
    if (known) return known;
    const tones = new Float32Array(this.pixels);
    this.perform("find", { colour: inputs(colour), plain: output(tones) });
    this.#plainTones.set(colour, tones);
    return tones;
  }

  /** What masks see before the mix: the picture as found, its colours cleaned so far. */
  seenBeforeMix(part: Part, clean: number): MaskPicture {
    return this.seen(part, clean, () => this.plainTones(part));
  }

  /** What masks see of it: its colours, cleaned so far, and tones. */
  seen(part: Part, clean: number, mixed: MaskPicture["mixed"]): MaskPicture {
    const colour = this.colourToMix(part, clean);
    return { ...colour, mixed, hues: () => this.hues(colour) };
  }

  hues(colour: Planes): Hues {
    const known = this.#hues.get(colour);
    if (known) return known;
    const hues = { hue: new Float32Array(this.pixels), fade: new Float32Array(this.pixels) };
    this.perform("find", { colour: inputs(colour), hues: outputs(hues) });
    this.#hues.set(colour, hues);
    return hues;
  }

  /** The colours' own a and b in OKLab, and their light. Not to be changed. */
  ownChroma(colour: Planes): OwnChroma {
    const known = this.#chroma.get(colour);
    if (known) return known;
    const plane = () => new Float32Array(this.pixels);
    const own = { a: plane(), b: plane(), root: plane() };
    this.perform("find", { colour: inputs(colour), own: outputs(own) });
    this.#chroma.set(colour, own);
    return own;
  }

  /** How much of the picture holds each hue: `bins` sums over the turn, weighted by how coloured a pixel is. */
  hueShares(bins: number): Float32Array {
    const { hue, fade } = this.hues(this.colour);
    const shares = new Float32Array(bins);
    for (let i = 0; i < hue.length; i++) {
      const bin = Math.min(Math.floor(hue[i]! * bins), bins - 1);
      shares[bin] = shares[bin]! + fade[i]!;
    }
    return shares.map((sum) => sum / hue.length);
  }

  /** The mean of a square around a pixel, `reach` pixels to each side, of a plane of the picture. */
  meanAround(plane: Float32Array, x: number, y: number, reach: number): number {
    const { width, height } = this.size;
    let sum = 0;
    let count = 0;
    for (let row = Math.max(y - reach, 0); row <= Math.min(y + reach, height - 1); row++) {
      for (let column = Math.max(x - reach, 0); column <= Math.min(x + reach, width - 1); column++) {
        sum += plane[row * width + column]!;
        count++;
      }
    }
    return sum / count;
  }
}

/** Bands of so many rows, the last of what is left. */
function bandsOf({ width, height }: Size, rowsInBand: number): Band[] {
  return Array.from({ length: Math.ceil(height / rowsInBand) }, (_, i) => {
    const y = i * rowsInBand;
    const rows = Math.min(rowsInBand, height - y);
    return { first: y * width, end: (y + rows) * width, y, rows };
  });
}
