import { LMS_TO_LAB, P3_TO_LMS } from "@/core/colour/oklab";
import { luminanceToTone } from "@/core/colour/lstar";
import { IDENTITY3, invert3, multiply3, type Matrix3 } from "@/core/colour/matrix3";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import { curveTable } from "@/core/colour/transferCurve";
import { CoreError } from "@/core/errors";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf, pairTable } from "@/core/kernels/pairTable";
import { CHROMA_FADE, FLOOR_KNEE, SHOULDER_FROM } from "@/core/kernels/reference";
import { BLEND_MODES } from "@/core/blend/blend";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { ColourStep } from "@/core/steps/colourStep";
import type { ChromaStep, DetailStep, GivenStops, Meeting, MixedStep, SurroundingsStep } from "@/core/steps/step";
import type { Surroundings } from "@/core/spatial/slicedBase";
import type { ToneBase } from "@/core/spatial/toneBase";
import { lightIn, LUMINANCE_WEIGHTS, staysWithin, type Weights } from "@/core/mix/weights";
import { DITHER_PERIOD, noiseLine, type Noise } from "@/core/view/dither";
import { WAVES_PERIOD } from "@/core/view/coderNoise";
import type { OutputSpace } from "@/core/colour/printColour";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { padded, SurroundingsBand, type BandPlace } from "./surroundingsBand";
import { StopsBand } from "./stopsBand";
import { SHARE_SLOT, STOPS_SLOTS, TableSlots } from "./tableSlots";
import { ChromaBand, type ChromaPlanes, type OwnChroma } from "./chromaBand";

/** Pixels of a band unless a single row is longer: large enough to hide call costs, small enough for the cache. */
export const BAND_PIXELS = 16384;

/** Knots of the luminance-to-tone table: error below 4e-7 in tone, a fortieth of a 16-bit level. */
const LUMINANCE_KNOTS = 16384;
const LUMINANCE_TO_TONE = pairTable(LUMINANCE_KNOTS, luminanceToTone);
/** The same for the mean of two tones that are only shown: error below 6e-6, and small enough to stay in the nearest cache. */
const MEAN_KNOTS = 4096;
const MEAN_TO_TONE = pairTable(MEAN_KNOTS, luminanceToTone);

/** What the planes of a band hold. */
export const PLANES = ["red", "green", "blue", "hue", "fade", "tone", "stops", "around", "above", "mask", "a", "b"] as const;
export type PlaneName = (typeof PLANES)[number];

/** Tables at work in one band at the most: those of a run, and those of one that looks at surroundings. */
const TABLE_SLOTS = 6;
/** Those that stay from band to band: what output is read through, and gains over hue. */
const [OUTPUT_SLOT, HUE_SLOT] = [TABLE_SLOTS, TABLE_SLOTS + 1];

/** Numbers that changing colour needs: six matrices, the light of three channels, and where colour begins to count. */
const COLOUR_CONSTANTS = 6 * 9 + 3 + 2;

/**
 * Runs the kernels on one band of pixels at a time in a small private heap. The caller puts a band in,
 * asks for steps, takes the result out; nothing is allocated meanwhile.
 *
 * Shape   a band holds at most `capacity` pixels; every method works on the first `n` of the band set last.
 * Errors  CoreError `bad_size` for a band over the capacity.
 */
export class BandMachine {
  readonly #heap: KernelHeap;
  readonly #plane: Record<PlaneName, number>;
  readonly #levels: number;
  readonly #curves: [number, number, number];
  readonly #matrix: number;
  readonly #fromP3: number;
  readonly #hueConstants: number;
  readonly #colourConstants: number;
  readonly #colourMatrix: number;
  readonly #toneTable: number;
  readonly #meanTable: number;
  readonly #output: number;
  readonly #ditherRow: number;
  readonly #wavesRow: number;
  readonly #counts: number;
  readonly #tables: TableSlots;
  readonly #stops: StopsBand;
  readonly #chroma: ChromaBand;
  readonly #around: SurroundingsBand;
  #n = 0;
  #weights: Weights = LUMINANCE_WEIGHTS;
  #hueTable: { at: number; knots: number } | undefined;

  constructor(
    readonly capacity: number,
    tableKnots: number,
  ) {
    const padded = Math.ceil(capacity / 4) * 4 + 8;
    const curveBytes = 3 * 4 * 65536;
    const bytes =
      padded * (4 * PLANES.length + 6 + 4) +
      curveBytes +
      8 * (LUMINANCE_KNOTS + 1) +
      8 * (MEAN_KNOTS + 1) +
      TableSlots.bytes(TABLE_SLOTS + 2, tableKnots) +
      SurroundingsBand.bytes(padded) +
      4 * 4 * padded +
      4 * WAVES_PERIOD +
      16 * HISTOGRAM_BINS +
      StopsBand.bytes +
      ChromaBand.bytes +
      8192;
    const heap = (this.#heap = new KernelHeap(bytes));
    this.#plane = Object.fromEntries(PLANES.map((name) => [name, heap.reserve(4 * padded)])) as Record<PlaneName, number>;
    this.#levels = heap.reserve(6 * padded);
    this.#output = heap.reserve(4 * padded);
    this.#curves = [heap.reserve(4 * 65536), heap.reserve(4 * 65536), heap.reserve(4 * 65536)];
    this.#matrix = heap.reserve(36);
    this.#fromP3 = heap.reserve(36);
    this.#hueConstants = heap.reserve(68);
    this.#colourConstants = heap.reserve(4 * COLOUR_CONSTANTS);
    this.#colourMatrix = heap.reserve(36);
    this.#toneTable = heap.reserve(8 * (LUMINANCE_KNOTS + 1));
    this.#meanTable = heap.reserve(8 * (MEAN_KNOTS + 1));
    this.#ditherRow = heap.reserve(4 * 4 * Math.max(padded, DITHER_PERIOD));
    this.#wavesRow = heap.reserve(4 * WAVES_PERIOD);
    this.#counts = heap.reserve(16 * HISTOGRAM_BINS);
    this.#tables = new TableSlots(heap, TABLE_SLOTS + 2, tableKnots);
    this.#chroma = new ChromaBand(heap, this.#plane);
    this.#around = new SurroundingsBand(heap, this.#plane, padded);
    this.#stops = new StopsBand(heap, this.#plane, this.#tables, this.#around);
    this.setGamut(IDENTITY3);
    heap.f32(this.#toneTable, LUMINANCE_TO_TONE.length).set(LUMINANCE_TO_TONE);
    heap.f32(this.#meanTable, MEAN_TO_TONE.length).set(MEAN_TO_TONE);
    heap.f32(this.#hueConstants, 17).set([...P3_TO_LMS, ...LMS_TO_LAB.slice(3), CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)]);
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
    this.#heap.f32(this.#colourConstants, COLOUR_CONSTANTS).set([...matrices.flat(), red, green, blue, ...fade]);
  }
  #toP3: Matrix3 = IDENTITY3;

  /** Sets the plan's mix. */
  setMix({ weights, hueTable }: Pick<CompiledPlan, "weights" | "hueTable">): void {
    this.#weights = weights;
    this.#hueTable = hueTable && { at: this.#tables.at(HUE_SLOT, hueTable), knots: knotsOf(hueTable) };
  }

  /** Sets the table that output steps read tones through, in levels of the output. */
  setOutputTable(table: Float32Array): void {
    this.#outputTable = this.#tables.at(OUTPUT_SLOT, table);
    this.#outputKnots = knotsOf(table);
  }
  #outputTable = 0;
  #outputKnots = 1;

  /** Starts a band of stored levels: fills red, green, blue. */
  decode(levels: Uint8Array | Uint16Array): void {
    const n = this.#begin(levels.length / 3);
    const p = this.#plane;
    const [r, g, b] = this.#curves;
    if (levels instanceof Uint8Array) {
      this.#heap.u8(this.#levels, levels.length).set(levels);
      this.#heap.run.decode8(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    } else {
      this.#heap.u16(this.#levels, levels.length).set(levels);
      this.#heap.run.decode16(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    }
  }

  /** Starts or continues a band with pixels `from` up to `to` of a whole plane. */
  put(name: PlaneName, plane: Float32Array, from: number, to: number): void {
    this.#begin(to - from);
    this.#heap.f32(this.#plane[name], to - from).set(plane.subarray(from, to));
  }

  /** The same for as many pixels as the band has. */
  putNext(name: PlaneName, plane: Float32Array, from: number): void {
    this.put(name, plane, from, from + this.#n);
  }

  /** Copies a plane of the band out, to `from` on. */
  take(name: PlaneName, plane: Float32Array, from: number): void {
    plane.set(this.#heap.f32(this.#plane[name], this.#n), from);
  }

  /** red, green, blue → hue, fade. */
  findHues(): void {
    const p = this.#plane;
    this.#heap.run.hueFade(p.red, p.green, p.blue, p.hue, p.fade, padded(this.#n), this.#hueConstants);
  }

  /**
   * red, green, blue → what a step makes of them, so far; by the mask in the machine where it is asked for. A light by surroundings reads them by the tone as found, which is
   * in the machine too. hue, fade and above are anything afterwards.
   */
  applyColour(step: ColourStep, amount: number, byMask: boolean, around: Surroundings | undefined, place: BandPlace): void {
    const p = this.#plane;
    const n = padded(this.#n);
    const { run } = this.#heap;
    const was = [p.hue, p.fade, p.above] as const;
    if (step.kind === "light") {
      this.#heap.f32(p.stops, n).fill(step.flat);
      if (step.around) {
        this.#around.sample(around!, place, p.around, this.#n);
        run.addTable(p.stops, p.around, n, this.#tables.at(STOPS_SLOTS, step.around.stops), knotsOf(step.around.stops));
      }
    }
    const isWhole = amount === 1 && !byMask;
    if (!isWhole) [p.red, p.green, p.blue].forEach((plane, c) => this.#heap.f32(was[c]!, n).set(this.#heap.f32(plane, n)));
    switch (step.kind) {
      case "matrix":
        this.#heap.f32(this.#colourMatrix, 9).set(step.matrix);
        run.throughMatrix(p.red, p.green - p.red, n, this.#colourMatrix);
        break;
      case "separate": {
        const { fromA, fromB, offset, alongA, alongB } = step.parting;
        this.#heap.f32(this.#colourMatrix, 5).set([fromA, fromB, offset, alongA, alongB]);
        const tables = [this.#tables.at(STOPS_SLOTS, step.along), this.#tables.at(STOPS_SLOTS + 1, step.across)] as const;
        run.separate(p.red, p.green, p.blue, n, this.#colourConstants, ...tables, knotsOf(step.along), this.#colourMatrix);
        break;
      }
      case "light":
        run.lightColour(p.red, p.green, p.blue, p.stops, n, this.#colourConstants);
        break;
    }
    if (!isWhole) run.towardsColour(p.red, p.green, p.blue, ...was, byMask ? p.mask : 0, amount, n);
  }

  /** red, green, blue → the tone of their luminance. */
  plainTone(): void {
    const p = this.#plane;
    const { red, green, blue } = LUMINANCE_WEIGHTS;
    const n = padded(this.#n);
    this.#heap.run.mixWithin(p.red, p.green, p.blue, p.tone, n, red, green, blue);
    this.#heap.run.lookUp(p.tone, p.tone, n, this.#toneTable, LUMINANCE_KNOTS);
  }

  /** red, green, blue (and hue, fade where the plan moves hues) → tone. */
  mix(): void {
    this.#mixInto(this.#plane.tone, this.#weights, this.#hueTable);
  }

  #mixInto(out: number, weights: Weights, hues: { at: number; knots: number } | undefined): void {
    const p = this.#plane;
    const n = padded(this.#n);
    const run = this.#heap.run;
    const { red, green, blue } = weights;
    if (staysWithin(weights, this.#toP3)) run.mixWithin(p.red, p.green, p.blue, out, n, red, green, blue);
    else run.mixWeights(p.red, p.green, p.blue, out, n, red, green, blue, FLOOR_KNEE, SHOULDER_FROM, this.#fromP3);
    if (hues) run.hueGain(out, p.hue, p.fade, n, hues.at, hues.knots);
    run.lookUp(out, out, n, this.#toneTable, LUMINANCE_KNOTS);
  }

  /** tone → tone and what another mix makes of red, green, blue (and hue, fade), so far as its strength, its share and the mask let it through. */
  applyMixed({ mix: { weights, hueTable }, ...meeting }: MixedStep, byMask: boolean): void {
    this.#mixInto(this.#plane.above, weights, hueTable && { at: this.#tables.at(STOPS_SLOTS, hueTable), knots: knotsOf(hueTable) });
    this.#meetAbove(meeting, byMask);
  }

  /** tone → tone and what is added by how far it lies from those around, which is in the machine as stops, ½ where it does not. */
  applyDetail({ added, ...meeting }: DetailStep, byMask: boolean): void {
    const { tone, above, stops } = this.#plane;
    const n = padded(this.#n);
    this.#heap.run.lookUp(stops, above, n, this.#tables.at(STOPS_SLOTS, added), knotsOf(added));
    this.#heap.run.add(tone, above, above, n);
    this.#meetAbove(meeting, byMask);
  }

  /** tone → what lies above it, so far as strength, share and mask let it through. */
  #meetAbove({ mode, strength, share }: Meeting, byMask: boolean): void {
    const { tone, above, stops } = this.#plane;
    const n = padded(this.#n);
    const { run } = this.#heap;
    if (mode !== "normal") run.blendPlanes(tone, above, above, n, BLEND_MODES.indexOf(mode));
    this.#letThrough(strength, share, byMask);
    run.mixBy(tone, above, stops, tone, n);
  }

  /** stops → how far a step comes through: its strength, its share over the tone, and the mask. */
  #letThrough(strength: number, share: Float32Array | undefined, byMask: boolean): void {
    const { tone, stops, mask } = this.#plane;
    const n = padded(this.#n);
    this.#heap.f32(stops, n).fill(strength);
    if (share) this.#heap.run.scaleLookedUp(stops, tone, n, this.#tables.at(SHARE_SLOT, share), knotsOf(share));
    if (byMask) this.#heap.run.multiply(stops, mask, stops, n);
  }

  /** Sets the space whose channels colour is shown and written in, and in how many bits. */
  setOutputSpace(space: OutputSpace, depth: 8 | 16): void {
    this.#chroma.setOutput(space, depth);
  }

  /** a, b → none. */
  clearChroma(): void {
    this.#chroma.clear(padded(this.#n));
  }

  /** a, b → those and what a step lays; one that returns the colour finds it as `findOwnChroma` leaves it, and leaves it so. */
  applyChroma({ laid, strength, share }: ChromaStep, byMask: boolean): void {
    const n = padded(this.#n);
    this.#letThrough(strength, share, byMask);
    this.#chroma.lay(laid, n, (table, out) => {
      this.#heap.run.lookUp(this.#plane.tone, out, n, this.#tables.at(STOPS_SLOTS, table), knotsOf(table));
    });
  }

  /** a, b → so much of them, by a table over tone. */
  limitChroma(share: Float32Array): void {
    const { tone, a, b } = this.#plane;
    const [at, knots] = [this.#tables.at(SHARE_SLOT, share), knotsOf(share)];
    for (const plane of [a, b]) this.#heap.run.scaleLookedUp(plane, tone, padded(this.#n), at, knots);
  }

  /** red, green, blue in linear P3 → a, b. */
  findChroma(): void {
    this.#chroma.ofColour(padded(this.#n), false);
  }

  /** red, green, blue in linear P3 → their own a and b in hue and fade, and what tells their light in around. */
  findOwnChroma(): void {
    this.#chroma.ofColour(padded(this.#n), true);
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
    this.#chroma.toLight(padded(this.#n));
  }

  /** a, b of the darker tones of a band, after its mean light was made → those of both: the darker tones, and what the lighter ones have, from places in whole planes. */
  meanChroma(darker: Float32Array, darkerFrom: number, lighter: ChromaPlanes, lighterFrom: number): void {
    this.putNext("around", darker, darkerFrom);
    this.#chroma.meet(lighter, lighterFrom, padded(this.#n), this.#n);
  }

  /** tone → the tone of its light and that of other tones, whose share is given: `n` of them, from places in whole planes. */
  meanLight(other: Float32Array, share: Float32Array, otherFrom: number, shareFrom: number, n: number): void {
    const { tone, above, mask } = this.#plane;
    this.put("above", other, otherFrom, otherFrom + n);
    this.put("mask", share, shareFrom, shareFrom + n);
    this.#heap.run.meanLight(tone, above, mask, tone, padded(n), this.#meanTable, MEAN_KNOTS);
  }

  /** tone → tone + table(tone), for one table after the other. */
  applyTables(tables: readonly Float32Array[]): void {
    const { tone } = this.#plane;
    tables.forEach((table, i) => {
      this.#heap.run.addLookedUp(tone, tone, padded(this.#n), this.#tables.at(i % TABLE_SLOTS, table), knotsOf(table));
    });
  }

  /** tone → tone + mask · table(tone). */
  applyTableByMask(table: Float32Array): void {
    const { tone, mask } = this.#plane;
    this.#heap.run.addLookedUpBy(tone, mask, tone, padded(this.#n), this.#tables.at(0, table), knotsOf(table));
  }

  /** tone → tone + mask · table(tone) + added · free(tone), the added read from `first` on. */
  applyTablesByMasks(table: Float32Array, free: Float32Array, added: Float32Array, first: number): void {
    const { tone, mask, stops } = this.#plane;
    const n = padded(this.#n);
    this.#heap.f32(stops, n).fill(0);
    this.#heap.run.addTableBy(stops, mask, tone, n, this.#tables.at(0, table), knotsOf(table));
    this.putNext("mask", added, first);
    this.#heap.run.addTableBy(stops, mask, tone, n, this.#tables.at(1, free), knotsOf(free));
    this.#heap.run.add(tone, stops, tone, n);
  }

  /** mask → mask times a small plane of the whole picture. */
  narrowMask(cells: ToneBase, place: BandPlace): void {
    const { mask, above } = this.#plane;
    this.#around.sampleCells(cells, place, above, this.#n);
    this.#heap.run.multiply(mask, above, mask, padded(this.#n));
  }

  /** mask → mask · table(tone). */
  gateMask(table: Float32Array): void {
    const { tone, mask } = this.#plane;
    this.#heap.run.scaleLookedUp(mask, tone, padded(this.#n), this.#tables.at(0, table), knotsOf(table));
  }

  /** mask → mask + a plane, read from `first` on. */
  widenMask(added: Float32Array, first: number): void {
    const { mask, above } = this.#plane;
    this.putNext("above", added, first);
    this.#heap.run.add(mask, above, mask, padded(this.#n));
  }

  /** tone → how far the mask in the machine acts on it, by its reach over tone. */
  showMask(reach: Float32Array | undefined): void {
    const { tone, mask } = this.#plane;
    const n = padded(this.#n);
    if (reach) this.#heap.run.scaleLookedUp(mask, tone, n, this.#tables.at(0, reach), knotsOf(reach));
    this.#heap.f32(tone, n).set(this.#heap.f32(mask, n));
  }

  /** tone → tone, exposed by what its surroundings give it; by the mask too, where it is asked for. */
  applySurroundings(step: SurroundingsStep, bases: readonly Surroundings[], place: BandPlace, byMask = false): void {
    this.#stops.bySurroundings(step, bases, place, byMask, this.#n);
  }

  /** tone → tone, exposed by the stops in the machine, where anything is painted, by those given flat and those given by tone. */
  applyStops(step: GivenStops, isPainted: boolean, byMask: boolean): void {
    this.#stops.byStops(step, isPainted, byMask, this.#n);
  }

  /** Adds the band's tones to a histogram of HISTOGRAM_BINS. */
  countTones(counts: Uint32Array): void {
    const lanes = this.#heap.u32(this.#counts, 4 * HISTOGRAM_BINS).fill(0);
    const whole = this.#n & ~3;
    this.#heap.run.histogram(this.#plane.tone, whole, this.#counts, HISTOGRAM_BINS);
    for (let i = 0; i < lanes.length; i++) counts[i % HISTOGRAM_BINS] = counts[i % HISTOGRAM_BINS]! + lanes[i]!;
    for (const t of this.#heap.f32(this.#plane.tone + 4 * whole, this.#n - whole)) {
      const bin = Math.min(Math.max(Math.floor(Math.fround(t * HISTOGRAM_BINS)), 0), HISTOGRAM_BINS - 1);
      counts[bin] = counts[bin]! + 1;
    }
  }

  /** tone → one row of opaque grey pixels, 4 bytes each. A view into the heap: copy it before the next call. */
  greyRgbaRow(from: number, width: number, ditherRow: Float32Array): Uint8Array {
    const mask = this.#setDither(ditherRow);
    const [tone, n] = [this.#plane.tone + 4 * from, padded(width)];
    this.#heap.run.greyToRgba(tone, this.#output, n, this.#outputTable, this.#outputKnots, this.#ditherRow, mask);
    return this.#heap.u8(this.#output, 4 * width);
  }

  /** red, green, blue → opaque Display P3 pixels of the band. A view, as above. */
  colourRgba(): Uint8Array {
    const p = this.#plane;
    this.#heap.run.colourToRgba(p.red, p.green, p.blue, this.#output, padded(this.#n), this.#outputTable, this.#outputKnots);
    return this.#heap.u8(this.#output, 4 * this.#n);
  }

  /** tone, a, b → one row of opaque pixels. A view, as above. */
  printRgbaRow(from: number, width: number, ditherRow: Float32Array): Uint8Array {
    const mask = this.#setDither(ditherRow);
    this.#chroma.toRgba(from, padded(width), this.#output, [this.#outputTable, this.#outputKnots], [this.#ditherRow, mask]);
    return this.#heap.u8(this.#output, 4 * width);
  }

  /** tone, a, b → one row of 8-bit levels of three channels, dithered: each by waves of its own, if there are any. A view, as above. */
  print8Row(from: number, width: number, row: Float32Array | Noise): Uint8Array {
    const n = padded(width);
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    const nextRow = row instanceof Float32Array ? 0 : this.#setWaves(row, n);
    this.#chroma.to8(from, n, this.#output, [this.#outputTable, this.#outputKnots], [this.#ditherRow, mask], nextRow);
    return this.#heap.u8(this.#output, 3 * width);
  }

  /** tone, a, b → 16-bit levels of three channels of the band. A view, as above. */
  print16(): Uint16Array {
    this.#chroma.to16(padded(this.#n), this.#levels, [this.#outputTable, this.#outputKnots]);
    return this.#heap.u16(this.#levels, 3 * this.#n);
  }

  /** tone → one row of 8-bit levels, dithered. A view, as above. */
  grey8Row(from: number, width: number, row: Float32Array | Noise): Uint8Array {
    const [tone, n] = [this.#plane.tone + 4 * from, padded(width)];
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    this.#heap.run.grey8(tone, this.#output, n, this.#outputTable, this.#outputKnots, this.#ditherRow, mask);
    return this.#heap.u8(this.#output, width);
  }

  /** tone → 16-bit levels of the band. A view, as above. */
  grey16(): Uint16Array {
    this.#heap.run.grey16(this.#plane.tone, this.#output, padded(this.#n), this.#outputTable, this.#outputKnots);
    return this.#heap.u16(this.#output, this.#n);
  }

  get movesHues(): boolean {
    return this.#hueTable !== undefined;
  }

  /** Sets offsets for a row that begin anew after a period. Returns the mask of places in it. */
  #setDither(row: Float32Array): number {
    this.#heap.f32(this.#ditherRow, row.length).set(row);
    return DITHER_PERIOD - 1;
  }

  /** Makes offsets for each pixel of a row. Returns the same. */
  #setNoise({ y, amplitude }: Noise, n: number): number {
    this.#heap.run.noiseRow(this.#ditherRow, n, noiseLine(y), amplitude);
    return -1;
  }

  /** Makes, behind those, the offsets of each channel. Returns how far behind. */
  #setWaves({ y, waves }: Noise, n: number): number {
    if (!waves) return 0;
    const from = (y % WAVES_PERIOD) * WAVES_PERIOD;
    waves.forEach((plane, c) => {
      this.#heap.f32(this.#wavesRow, WAVES_PERIOD).set(plane.subarray(from, from + WAVES_PERIOD));
      this.#heap.run.offsetRow(this.#ditherRow, this.#wavesRow, WAVES_PERIOD - 1, this.#ditherRow + 4 * n * (c + 1), n);
    });
    return 4 * n;
  }

  #begin(n: number): number {
    if (n > this.capacity) throw new CoreError("bad_size", `a band of ${n} pixels, room for ${this.capacity}`, { n });
    this.#n = n;
    return padded(n);
  }
}
