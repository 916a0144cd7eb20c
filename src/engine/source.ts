import { CoreError } from "@/core/errors";
import { CHANNELS } from "@/core/mix/weights";
import type { Matrix3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import type { Grain } from "@/core/grain/grain";
import type { Planes } from "@/core/kernels/reference";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { Area } from "@/core/spots/area";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { BAND_PIXELS, BandMachine } from "./bandMachine";
import type { BandPlace } from "./surroundingsBand";
import { betweenDecoded, colourOf, decodeLevels, reduceDecoded, viewOf, type Decoded, type Part, type StoredLevels } from "./decoded";
import { FUSED_KNOTS } from "./fuseTables";
import { ANALYSIS_EDGE } from "./maskBases";
import type { OwnChroma } from "./chromaBand";
import { PrintCutter } from "./printCutter";
import type { MaskPicture } from "./maskPlane";
import { Spotted } from "./spotted";
import type { SourcePlace } from "./stageTypes";

/** Hue in turns, and how far a place is coloured, 0–1. */
interface Hues {
  hue: Float32Array;
  fade: Float32Array;
}

/** Planes of a source by what they are of. */
export interface LaidPlanes {
  shapes: Map<string, Float32Array>;
  masks: Map<string, Float32Array>;
}

const GRAIN_PARTS: readonly Part[] = ["darker", "lighter"];
const WHOLE: readonly Part[] = [undefined];
const UNTOUCHED = { spots: [], spotsKey: "" };

/**
 * A picture, or a part of one, decoded: linear colour, and what inside each pixel it was reduced from. All that renders it shares it, and the machine that
 * works on one band of it at a time.
 *
 * Memory  12 bytes a pixel, 8 more once hues are looked at, and 12 once colour is returned; with grain 40 and 16; with cleaned colour as much again, and once more where a mix reads something between.
 *         Masks and their shapes up to a fixed size. Spots: see `Spotted`.
 */
export class Source {
  readonly place: SourcePlace;
  /** Of whichever stage works at the moment; nothing in it is anybody's afterwards. */
  readonly machine: BandMachine;
  readonly cutter = new PrintCutter();
  readonly #rowsInBand: number;
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
    place?: SourcePlace,
  ) {
    this.place = place ?? { x: 0, y: 0, whole: size };
    this.#rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    // A row of a print cut out of it may be as long as its diagonal.
    this.machine = new BandMachine(
      Math.max(this.#rowsInBand * size.width, Math.ceil(Math.hypot(size.width, size.height)) + 1),
      FUSED_KNOTS,
    );
    this.machine.setGamut(toP3);
    this.#found = found;
    this.#spotted = this.#spottedOf(found);
  }

  /** From stored levels: interleaved RGB, row after row. `place` where they are a part of a picture; `grain`, packed, where they were reduced. */
  static fromLevels(
    levels: StoredLevels["levels"],
    size: Size,
    space: SourceSpace,
    { place, grain }: { place?: SourcePlace | undefined; grain?: Uint32Array | undefined } = {},
  ): Source {
    return new Source(decodeLevels({ levels, space, grain }, size), size, space.toP3, place);
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

  /** Covers what a plan covers of it, in place: all that is asked from now on is of that. What was taken from it before is of what was covered then. */
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
    const healed = this.#healed;
    this.heal(UNTOUCHED); // it covers its own spots
    const reduced = new Source(reduceDecoded(this.#found, this.size, size), size, this.toP3);
    if (this.#cleaned) reduced.#clean(reduceDecoded(this.#cleaned, this.size, size));
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

  forBands(work: (from: number, to: number, y: number, rows: number) => void): void {
    const { width, height } = this.size;
    for (let y = 0; y < height; y += this.#rowsInBand) {
      const rows = Math.min(this.#rowsInBand, height - y);
      work(y * width, (y + rows) * width, y, rows);
    }
  }

  /** Where the band from a row on lies in the whole picture. */
  bandPlace(y: number): BandPlace {
    const { x, y: top, whole } = this.place;
    return { x, y: top + y, width: this.size.width, whole };
  }

  putColour(from: number, to: number, colour = this.colour): void {
    for (const name of CHANNELS) this.machine.put(name, colour[name], from, to);
  }

  /** The colours are no longer what they were: what is known of them is found anew. */
  forgetHues(colour: Planes): void {
    this.#hues.delete(colour);
    this.#chroma.delete(colour);
  }

  /** The tone of the luminance as found. Not to be changed. */
  plainTones(part: Part): Float32Array {
    const colour = this.colourOf(part);
    const known = this.#plainTones.get(colour);
    if (known) return known;
    const tones = new Float32Array(this.pixels);
    this.forBands((from, to) => {
      this.putColour(from, to, colour);
      this.machine.plainTone();
      this.machine.take("tone", tones, from);
    });
    this.#plainTones.set(colour, tones);
    return tones;
  }

  /** What masks see before the mix. */
  asFound(part?: Part): MaskPicture {
    const colour = this.colourOf(part);
    return { ...colour, mixed: () => this.plainTones(part), hues: () => this.hues(colour) };
  }

  hues(colour: Planes): Hues {
    const known = this.#hues.get(colour);
    if (known) return known;
    const hues = { hue: new Float32Array(this.pixels), fade: new Float32Array(this.pixels) };
    this.forBands((from, to) => {
      this.putColour(from, to, colour);
      this.machine.findHues();
      this.machine.take("hue", hues.hue, from);
      this.machine.take("fade", hues.fade, from);
    });
    this.#hues.set(colour, hues);
    return hues;
  }

  /** The colours' own a and b in OKLab, and their light. Not to be changed. */
  ownChroma(colour: Planes): OwnChroma {
    const known = this.#chroma.get(colour);
    if (known) return known;
    const plane = () => new Float32Array(this.pixels);
    const own = { a: plane(), b: plane(), root: plane() };
    this.forBands((from, to) => {
      this.putColour(from, to, colour);
      this.machine.findOwnChroma();
      this.machine.takeOwnChroma(own, from);
    });
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
