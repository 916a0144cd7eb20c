import { CHROMA_FADE, FLOOR_KNEE, SHOULDER_FROM } from "@/core/kernels/constants";
import { LMS_TO_LAB, P3_TO_LMS } from "@/core/colour/oklab";
import { luminanceToTone } from "@/core/colour/lstar";
import { IDENTITY3, invert3, multiply3, type Matrix3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import { curveTable } from "@/core/colour/transferCurve";
import { CoreError } from "@/core/errors";
import { KernelHeap, type KernelExports } from "@/core/kernels/kernelHeap";
import { knotsOf, pairTable } from "@/core/kernels/pairTable";
import type { CompiledMix } from "@/core/mix/mixLook";
import { lightIn, LUMINANCE_WEIGHTS, staysWithin } from "@/core/mix/weights";
import type { ToneBase } from "@/core/spatial/toneBase";
import { SOFT_KNOTS } from "@/core/steps/knots";
import { ROWS_TO_A_SIDE } from "@/core/steps/orderedStops";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { ArraySlots } from "./arraySlots";
import { ChromaBand, type OwnChroma } from "./chromaBand";
import { OutputBand } from "./outputBand";
import { padded, SurroundingsBand, type BandPlace } from "./surroundingsBand";

/** Pixels of a band unless a single row is longer: large enough to hide call costs, small enough for the cache. */
export const BAND_PIXELS = 16384;

/** Knots of the luminance-to-tone table: error below 4e-7 in tone, a fortieth of a 16-bit level. */
const LUMINANCE_KNOTS = 16384;
const LUMINANCE_TO_TONE = pairTable(LUMINANCE_KNOTS, luminanceToTone);
/** The same for the mean of two tones that are only shown: error below 6e-6, and small enough to stay in the nearest cache. */
const MEAN_KNOTS = 4096;
const MEAN_TO_TONE = pairTable(MEAN_KNOTS, luminanceToTone);

/** What the planes of a band hold. */
export const PLANES = [
  "red",
  "green",
  "blue",
  "hue",
  "fade",
  "tone",
  "stops",
  "around",
  "above",
  "mask",
  "a",
  "b",
  "darker",
  "darkerA",
  "darkerB",
] as const;
export type PlaneName = (typeof PLANES)[number];

/** Tables held at once: those of a run of a few passes, what output is read through, gains over hue. */
const TABLE_SLOTS = 8;
/** Steps whose rows of stops are held at once, so that a few in turn are not copied in for every band. */
const ROWS_SLOTS = 2;
/** Numbers in the rows of stops of a step. */
const ROWS_LENGTH = 2 * (2 * ROWS_TO_A_SIDE + 1) * (SOFT_KNOTS + 1);

/** Numbers that changing colour needs: six matrices, the light of three channels, and where colour begins to count. */
const COLOUR_CONSTANTS = 6 * 9 + 3 + 2;

/**
 * Holds one band of pixels at a time in a small private heap, for kernels to run on. The caller puts a band in,
 * asks for what is to be done with it, takes the result out; nothing is allocated meanwhile. What each step of a plan does is told in
 * engine/steps.
 *
 * Shape   a band holds at most `capacity` pixels; every method works on the first `pixels` of the band set last.
 * Errors  CoreError `bad_size` for a band over the capacity.
 */
export class BandMachine {
  readonly #heap: KernelHeap;
  /** The kernels, which are told places in the heap. */
  readonly run: KernelExports;
  /** Where each plane lies there. */
  readonly plane: Readonly<Record<PlaneName, number>>;
  readonly tables: ArraySlots;
  readonly stopsRows: ArraySlots;
  readonly around: SurroundingsBand;
  readonly output: OutputBand;
  readonly #chroma: ChromaBand;
  readonly #levels: number;
  readonly #curves: readonly [number, number, number];
  readonly #matrix: number;
  readonly #fromP3: number;
  readonly #hueConstants: number;
  /** Constants of colour steps, and room for the numbers of one. */
  readonly colourConstants: number;
  readonly #stepNumbers: number;
  readonly #toneTable: number;
  readonly #meanTable: number;
  readonly #counts: number;
  #pixels = 0;
  #mix: CompiledMix = { weights: LUMINANCE_WEIGHTS, hueTable: undefined };
  #toP3: Matrix3 = IDENTITY3;

  constructor(
    readonly capacity: number,
    tableKnots: number,
  ) {
    const room = Math.ceil(capacity / 4) * 4 + 8;
    const bytes =
      4 * room * PLANES.length +
      6 * room +
      3 * 4 * 65536 +
      8 * (LUMINANCE_KNOTS + 1) +
      8 * (MEAN_KNOTS + 1) +
      ArraySlots.bytes(TABLE_SLOTS, 2 * (tableKnots + 1)) +
      ArraySlots.bytes(ROWS_SLOTS, ROWS_LENGTH) +
      SurroundingsBand.bytes(room) +
      OutputBand.bytes(room) +
      ChromaBand.bytes +
      16 * HISTOGRAM_BINS +
      8192;
    const heap = (this.#heap = new KernelHeap(bytes));
    this.run = heap.run;
    this.plane = Object.fromEntries(PLANES.map((name) => [name, heap.reserve(4 * room)])) as Record<PlaneName, number>;
    this.#levels = heap.reserve(6 * room);
    this.#curves = [heap.reserve(4 * 65536), heap.reserve(4 * 65536), heap.reserve(4 * 65536)];
    this.#matrix = heap.reserve(36);
    this.#fromP3 = heap.reserve(36);
    this.#hueConstants = heap.reserve(68);
    this.colourConstants = heap.reserve(4 * COLOUR_CONSTANTS);
    this.#stepNumbers = heap.reserve(36);
    this.#toneTable = heap.reserve(8 * (LUMINANCE_KNOTS + 1));
    this.#meanTable = heap.reserve(8 * (MEAN_KNOTS + 1));
    this.#counts = heap.reserve(16 * HISTOGRAM_BINS);
    this.tables = new ArraySlots(heap, TABLE_SLOTS, 2 * (tableKnots + 1));
    this.stopsRows = new ArraySlots(heap, ROWS_SLOTS, ROWS_LENGTH);
    this.#chroma = new ChromaBand(heap, this.plane);
    this.around = new SurroundingsBand(heap, this.plane, room);
    this.output = new OutputBand(heap, room, this, this.#chroma);
    this.setGamut(IDENTITY3);
    heap.f32(this.#toneTable, LUMINANCE_TO_TONE.length).set(LUMINANCE_TO_TONE);
    heap.f32(this.#meanTable, MEAN_TO_TONE.length).set(MEAN_TO_TONE);
    heap.f32(this.#hueConstants, 17).set([...P3_TO_LMS, ...LMS_TO_LAB.slice(3), CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)]);
  }

  /** Pixels of the band. */
  get pixels(): number {
    return this.#pixels;
  }

  /** The same as kernels take them: four at a time. */
  get padded(): number {
    return padded(this.#pixels);
  }

  /** A plane of the band, of as many pixels as kernels take. A view into the heap. */
  view(name: PlaneName): Float32Array {
    return this.#heap.f32(this.plane[name], this.padded);
  }

  /** Numbers of a step, few, where a kernel finds them. */
  numbers(numbers: readonly number[]): number {
    this.#heap.f32(this.#stepNumbers, numbers.length).set(numbers);
    return this.#stepNumbers;
  }

  /** Sets what the levels given to `decode` mean. */
  setSpace(space: SourceSpace, depth: 8 | 16): void {
    const levels = depth === 8 ? 256 : 65536;
    space.curves.forEach((curve, i) => this.#heap.f32(this.#curves[i]!, levels).set(curveTable(curve, levels)));
    this.#heap.f32(this.#matrix, 9).set(space.toP3);
    this.setGamut(space.toP3);
  }

  /** Sets which colours there may be, for bands of linear colour: the source's channels to linear P3. */
  setGamut(toP3: Matrix3): void {
    this.#toP3 = toP3;
    const fromP3 = invert3(toP3);
    this.#heap.f32(this.#fromP3, 9).set(fromP3);
    const { red, green, blue } = lightIn(toP3);
    const matrices = [P3_TO_LMS, LMS_TO_LAB, invert3(LMS_TO_LAB), multiply3(fromP3, invert3(P3_TO_LMS)), fromP3, toP3];
    const fade = [CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)];
    this.#heap.f32(this.colourConstants, COLOUR_CONSTANTS).set([...matrices.flat(), red, green, blue, ...fade]);
  }
  /** Sets the plan's mix. */
  setMix({ weights, hueTable }: CompiledMix): void {
    this.#mix = { weights, hueTable };
  }

  /** Starts a band of stored levels: fills red, green, blue. */
  decode(levels: Uint8Array | Uint16Array): void {
    const n = this.#begin(levels.length / 3);
    const p = this.plane;
    const [r, g, b] = this.#curves;
    if (levels instanceof Uint8Array) {
      this.#heap.u8(this.#levels, levels.length).set(levels);
      this.run.decode8(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    } else {
      this.#heap.u16(this.#levels, levels.length).set(levels);
      this.run.decode16(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    }
  }

  /** Starts or continues a band with pixels `from` up to `to` of a whole plane. */
  put(name: PlaneName, plane: Float32Array, from: number, to: number): void {
    this.#begin(to - from);
    this.#heap.f32(this.plane[name], to - from).set(plane.subarray(from, to));
  }

  /** The same for as many pixels as the band has. */
  putNext(name: PlaneName, plane: Float32Array, from: number): void {
    this.put(name, plane, from, from + this.#pixels);
  }

  /** Copies a plane of the band out, to `from` on. */
  take(name: PlaneName, plane: Float32Array, from: number): void {
    plane.set(this.#heap.f32(this.plane[name], this.#pixels), from);
  }

  /** red, green, blue → hue, fade. */
  findHues(): void {
    const p = this.plane;
    this.run.hueFade(p.red, p.green, p.blue, p.hue, p.fade, this.padded, this.#hueConstants);
  }

  /** red, green, blue → the tone of their luminance. */
  plainTone(): void {
    const p = this.plane;
    const { red, green, blue } = LUMINANCE_WEIGHTS;
    const n = this.padded;
    this.run.mixWithin(p.red, p.green, p.blue, p.tone, n, red, green, blue);
    this.run.lookUp(p.tone, p.tone, n, this.#toneTable, LUMINANCE_KNOTS);
  }

  /** red, green, blue (and hue, fade where the plan moves hues) → tone. */
  mix(): void {
    this.mixInto("tone", this.#mix);
  }

  /** The same by any mix, into any plane. */
  mixInto(plane: PlaneName, mix: CompiledMix): void {
    this.#lightInto(plane, mix);
    this.run.lookUp(this.plane[plane], this.plane[plane], this.padded, this.#toneTable, LUMINANCE_KNOTS);
  }

  /** The same, leaving light where tones would be. */
  mixLight(): void {
    this.#lightInto("tone", this.#mix);
  }

  #lightInto(plane: PlaneName, { weights, hueTable }: CompiledMix): void {
    const p = this.plane;
    const [out, n] = [p[plane], this.padded];
    const { run } = this;
    const { red, green, blue } = weights;
    if (staysWithin(weights, this.#toP3)) run.mixWithin(p.red, p.green, p.blue, out, n, red, green, blue);
    else run.mixWeights(p.red, p.green, p.blue, out, n, red, green, blue, FLOOR_KNEE, SHOULDER_FROM, this.#fromP3);
    if (hueTable) run.hueGain(out, p.hue, p.fade, n, this.tables.at(hueTable), knotsOf(hueTable));
  }

  /** a, b → none. */
  clearChroma(): void {
    this.#chroma.clear(this.padded);
  }

  /** a, b → so much of them, by a table over tone. */
  limitChroma(share: Float32Array): void {
    const { tone, a, b } = this.plane;
    const [at, knots] = [this.tables.at(share), knotsOf(share)];
    for (const plane of [a, b]) this.run.scaleLookedUp(plane, tone, this.padded, at, knots);
  }

  /** red, green, blue in linear P3 → a, b. */
  findChroma(): void {
    this.#chroma.ofColour(this.padded, false);
  }

  /** red, green, blue in linear P3 → their own a and b in hue and fade, and what tells their light in around. */
  findOwnChroma(): void {
    this.#chroma.ofColour(this.padded, true);
  }

  /** The same where it is known already: from a place in whole planes. */
  putOwnChroma({ a, b, root }: OwnChroma, from: number, to: number): void {
    this.put("hue", a, from, to);
    this.put("fade", b, from, to);
    this.put("around", root, from, to);
  }

  /** Takes it out, to a place in whole planes. */
  takeOwnChroma({ a, b, root }: OwnChroma, from: number): void {
    this.take("hue", a, from);
    this.take("fade", b, from);
    this.take("around", root, from);
  }

  /** tone, a, b → red, green, blue in linear P3, whose luminance is the tone's. */
  colourLight(): void {
    this.#chroma.toLight(this.padded);
  }

  /** Keeps tone, and a and b where there is colour, as those of the darker tones of the band. */
  setDarker(isColoured: boolean): void {
    this.view("darker").set(this.view("tone"));
    if (!isColoured) return;
    this.view("darkerA").set(this.view("a"));
    this.view("darkerB").set(this.view("b"));
  }

  /**
   * tone, a, b, which are the lighter's → the tone of its light and the darker's, by the share of the lighter, read from `from` on; and the
   * colour of both.
   */
  meetDarker(share: Float32Array, from: number, isColoured: boolean): void {
    const { tone, mask, darker } = this.plane;
    this.putNext("mask", share, from);
    if (isColoured) this.view("above").set(this.view("tone"));
    this.run.meanLight(darker, tone, mask, tone, this.padded, this.#meanTable, MEAN_KNOTS);
    if (isColoured) this.#chroma.meet(this.padded);
  }

  /** tone → its mean with the darker's, by the share of the lighter: where both are light already. */
  meetDarkerLight(share: Float32Array, from: number): void {
    const { tone, mask, darker } = this.plane;
    this.putNext("mask", share, from);
    this.run.between(darker, tone, mask, tone, this.padded);
  }

  /** mask → mask times a small plane of the whole picture. */
  narrowMask(cells: ToneBase, place: BandPlace): void {
    const { mask, above } = this.plane;
    this.around.sampleCells(cells, place, above, this.#pixels);
    this.run.multiply(mask, above, mask, this.padded);
  }

  /** mask → mask · table(tone). */
  gateMask(table: Float32Array): void {
    const { tone, mask } = this.plane;
    this.run.scaleLookedUp(mask, tone, this.padded, this.tables.at(table), knotsOf(table));
  }

  /** mask → mask + a plane, read from `first` on. */
  widenMask(added: Float32Array, first: number): void {
    const { mask, above } = this.plane;
    this.putNext("above", added, first);
    this.run.add(mask, above, mask, this.padded);
  }

  /** tone → how far the mask in the machine acts on it, by its reach over tone. */
  showMask(reach: Float32Array | undefined): void {
    const { tone, mask } = this.plane;
    const n = this.padded;
    if (reach) this.run.scaleLookedUp(mask, tone, n, this.tables.at(reach), knotsOf(reach));
    this.#heap.f32(tone, n).set(this.#heap.f32(mask, n));
  }

  /** Adds the band's tones to a histogram of HISTOGRAM_BINS. */
  countTones(counts: Uint32Array): void {
    const lanes = this.#heap.u32(this.#counts, 4 * HISTOGRAM_BINS).fill(0);
    const whole = this.#pixels & ~3;
    this.run.histogram(this.plane.tone, whole, this.#counts, HISTOGRAM_BINS);
    for (let i = 0; i < lanes.length; i++) counts[i % HISTOGRAM_BINS] = counts[i % HISTOGRAM_BINS]! + lanes[i]!;
    for (const t of this.#heap.f32(this.plane.tone + 4 * whole, this.#pixels - whole)) {
      const bin = Math.min(Math.max(Math.floor(Math.fround(t * HISTOGRAM_BINS)), 0), HISTOGRAM_BINS - 1);
      counts[bin] = counts[bin]! + 1;
    }
  }

  get movesHues(): boolean {
    return this.#mix.hueTable !== undefined;
  }

  #begin(n: number): number {
    if (n > this.capacity) throw new CoreError("bad_size", `a band of ${n} pixels, room for ${this.capacity}`, { n });
    this.#pixels = n;
    return padded(n);
  }
}
