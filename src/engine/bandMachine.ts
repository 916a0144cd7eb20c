import { LMS_TO_LAB, P3_TO_LMS } from "@/core/colour/oklab";
import { luminanceToTone } from "@/core/colour/lstar";
import type { SourceSpace } from "@/core/colour/sourceSpace";
import { curveTable } from "@/core/colour/transferCurve";
import { CoreError } from "@/core/errors";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf, pairTable } from "@/core/kernels/pairTable";
import { CHROMA_FADE, FLOOR_KNEE } from "@/core/kernels/reference";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";

/** Pixels of a band unless a single row is longer: large enough to hide call costs, small enough for the cache. */
export const BAND_PIXELS = 16384;

/** Knots of the luminance-to-tone table: error below 4e-7 in tone, a fortieth of a 16-bit level. */
const LUMINANCE_KNOTS = 16384;
const LUMINANCE_TO_TONE = pairTable(LUMINANCE_KNOTS, luminanceToTone);

/** What the planes of a band hold. */
export const PLANES = ["red", "green", "blue", "hue", "fade", "tone"] as const;
export type PlaneName = (typeof PLANES)[number];

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
  readonly #hueConstants: number;
  readonly #toneTable: number;
  readonly #output: number;
  readonly #outputTable: number;
  readonly #ditherRow: number;
  readonly #counts: number;
  readonly #tables: number;
  readonly #tableBytes: number;
  #n = 0;
  #plan: CompiledPlan | undefined;
  #hueTable: { at: number; knots: number } | undefined;

  constructor(
    readonly capacity: number,
    readonly passSlots: number,
    tableKnots: number,
  ) {
    const padded = Math.ceil(capacity / 4) * 4 + 8;
    this.#tableBytes = 8 * (tableKnots + 1);
    const curveBytes = 3 * 4 * 65536;
    const bytes =
      padded * (4 * PLANES.length + 6 + 4) +
      curveBytes +
      8 * (LUMINANCE_KNOTS + 1) +
      (passSlots + 2) * this.#tableBytes +
      16 * HISTOGRAM_BINS +
      8192;
    const heap = (this.#heap = new KernelHeap(bytes));
    this.#plane = Object.fromEntries(PLANES.map((name) => [name, heap.reserve(4 * padded)])) as Record<PlaneName, number>;
    this.#levels = heap.reserve(6 * padded);
    this.#output = heap.reserve(4 * padded);
    this.#curves = [heap.reserve(4 * 65536), heap.reserve(4 * 65536), heap.reserve(4 * 65536)];
    this.#matrix = heap.reserve(36);
    this.#hueConstants = heap.reserve(68);
    this.#toneTable = heap.reserve(8 * (LUMINANCE_KNOTS + 1));
    this.#outputTable = heap.reserve(this.#tableBytes);
    this.#ditherRow = heap.reserve(32);
    this.#counts = heap.reserve(16 * HISTOGRAM_BINS);
    this.#tables = heap.reserve((passSlots + 1) * this.#tableBytes);
    heap.f32(this.#toneTable, LUMINANCE_TO_TONE.length).set(LUMINANCE_TO_TONE);
    heap.f32(this.#hueConstants, 17).set([...P3_TO_LMS, ...LMS_TO_LAB.slice(3), CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)]);
  }

  /** Sets what the levels given to `decode` mean. */
  setSpace(space: SourceSpace, depth: 8 | 16): void {
    const levels = depth === 8 ? 256 : 65536;
    space.curves.forEach((curve, i) => this.#heap.f32(this.#curves[i]!, levels).set(curveTable(curve, levels)));
    this.#heap.f32(this.#matrix, 9).set(space.toP3);
  }

  /** Sets the plan; its tables are copied in, so later steps need nothing but the band. */
  setPlan(plan: CompiledPlan): void {
    if (plan.passes.length > this.passSlots) {
      throw new CoreError("bad_size", `${plan.passes.length} passes, room for ${this.passSlots}`, { passes: plan.passes.length });
    }
    this.#plan = plan;
    plan.passes.forEach(({ table }, i) => table && this.#writeTable(this.#passTable(i), table));
    this.#hueTable = plan.hueTable && { at: this.#passTable(this.passSlots), knots: knotsOf(plan.hueTable) };
    if (plan.hueTable) this.#writeTable(this.#hueTable!.at, plan.hueTable);
  }

  /** Sets the table that output steps read tones through, in levels of the output. */
  setOutputTable(table: Float32Array): void {
    this.#writeTable(this.#outputTable, table);
    this.#outputKnots = knotsOf(table);
  }
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

  /** Copies a plane of the band out, to `from` on. */
  take(name: PlaneName, plane: Float32Array, from: number): void {
    plane.set(this.#heap.f32(this.#plane[name], this.#n), from);
  }

  /** red, green, blue → hue, fade. */
  findHues(): void {
    const p = this.#plane;
    this.#heap.run.hueFade(p.red, p.green, p.blue, p.hue, p.fade, padded(this.#n), this.#hueConstants);
  }

  /** red, green, blue (and hue, fade where the plan moves hues) → tone. */
  mix(): void {
    const { weights } = this.#compiled();
    const p = this.#plane;
    const n = padded(this.#n);
    const run = this.#heap.run;
    run.mixWeights(p.red, p.green, p.blue, p.tone, n, weights.red, weights.green, weights.blue, FLOOR_KNEE);
    if (this.#hueTable) run.hueGain(p.tone, p.hue, p.fade, n, this.#hueTable.at, this.#hueTable.knots);
    run.lookUp(p.tone, p.tone, n, this.#toneTable, LUMINANCE_KNOTS);
  }

  /** tone → tone, by pass `index` of the plan. */
  applyPass(index: number): void {
    const table = this.#compiled().passes[index]?.table;
    if (table) this.#heap.run.addLookedUp(this.#plane.tone, this.#plane.tone, padded(this.#n), this.#passTable(index), knotsOf(table));
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
    this.#setDither(ditherRow);
    this.#heap.run.greyToRgba(
      this.#plane.tone + 4 * from,
      this.#output,
      padded(width),
      this.#outputTable,
      this.#outputKnots,
      this.#ditherRow,
    );
    return this.#heap.u8(this.#output, 4 * width);
  }

  /** red, green, blue → opaque Display P3 pixels of the band. A view, as above. */
  colourRgba(): Uint8Array {
    const p = this.#plane;
    this.#heap.run.colourToRgba(p.red, p.green, p.blue, this.#output, padded(this.#n), this.#outputTable, this.#outputKnots);
    return this.#heap.u8(this.#output, 4 * this.#n);
  }

  /** tone → one row of 8-bit levels, dithered. A view, as above. */
  grey8Row(from: number, width: number, ditherRow: Float32Array): Uint8Array {
    this.#setDither(ditherRow);
    this.#heap.run.grey8(this.#plane.tone + 4 * from, this.#output, padded(width), this.#outputTable, this.#outputKnots, this.#ditherRow);
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

  #setDither(row: Float32Array): void {
    this.#heap.f32(this.#ditherRow, 8).set(row);
  }

  #passTable(index: number): number {
    return this.#tables + index * this.#tableBytes;
  }

  #writeTable(at: number, table: Float32Array): void {
    if (4 * table.length > this.#tableBytes) throw new CoreError("bad_size", `a table of ${knotsOf(table)} knots does not fit`);
    this.#heap.f32(at, table.length).set(table);
  }

  #begin(n: number): number {
    if (n > this.capacity) throw new CoreError("bad_size", `a band of ${n} pixels, room for ${this.capacity}`, { n });
    this.#n = n;
    return padded(n);
  }

  #compiled(): CompiledPlan {
    if (!this.#plan) throw new CoreError("bad_plan", "no plan set");
    return this.#plan;
  }
}

function padded(n: number): number {
  return (n + 3) & ~3;
}
