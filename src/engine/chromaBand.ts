import { CHROMA_CONSTANTS, chromaConstants, type OutputSpace } from "@/core/colour/printColour";
import type { KernelHeap } from "@/core/kernels/kernelHeap";
import type { LaidChroma } from "@/core/steps/step";
import type { PlaneName } from "./bandMachine";

/** a and b of OKLab, pixel by pixel, beside the tones of a print. */
export interface ChromaPlanes {
  a: Float32Array;
  b: Float32Array;
}
export const CHROMA_PLANES = ["a", "b"] as const;

/** The colour beside the tones of the band in a machine. `n` counts its pixels, a multiple of 4. */
export class ChromaBand {
  readonly #channels: number;
  readonly #p3: number;
  /** Where a table of tones lies, and its knots. */
  readonly #toneTable: readonly [number, number];

  /** Bytes it reserves in its machine's heap. */
  static readonly bytes = 2 * 4 * (CHROMA_CONSTANTS + 4);

  constructor(
    readonly heap: KernelHeap,
    readonly plane: Record<PlaneName, number>,
    toneTable: readonly [number, number],
  ) {
    this.#toneTable = toneTable;
    this.#channels = heap.reserve(4 * CHROMA_CONSTANTS);
    this.#p3 = heap.reserve(4 * CHROMA_CONSTANTS);
    heap.f32(this.#p3, CHROMA_CONSTANTS).set(chromaConstants("display-p3"));
    this.setSpace("display-p3");
  }

  /** Sets the space whose channels are shown and written. */
  setSpace(space: OutputSpace): void {
    this.heap.f32(this.#channels, CHROMA_CONSTANTS).set(chromaConstants(space));
  }

  clear(n: number): void {
    for (const name of CHROMA_PLANES) this.heap.f32(this.plane[name], n).fill(0);
  }

  /** a, b → those and what is laid on them, by the amounts in stops; what is laid is looked up by `lookUp`, or of red, green, blue. around and above are anything afterwards. */
  lay(laid: LaidChroma, n: number, lookUp: (table: Float32Array, out: number) => void): void {
    const { red, green, blue, tone, around, above, a, b, stops } = this.plane;
    const { run } = this.heap;
    if (laid.by === "colour") run.chromaOf(red, green, blue, tone, around, above, n, this.#p3, laid.saturation);
    else {
      lookUp(laid.a, around);
      lookUp(laid.b, above);
    }
    run.layChroma(a, around, stops, n, Number(laid.replaces));
    run.layChroma(b, above, stops, n, Number(laid.replaces));
  }

  /** red, green, blue in linear P3 → a, b. */
  ofColour(n: number): void {
    const { red, green, blue, a, b } = this.plane;
    this.heap.run.chromaOf(red, green, blue, 0, a, b, n, this.#p3, 1);
  }

  /** tone, a, b → red, green, blue in linear P3, beyond it where they lie there. */
  toLight(n: number): void {
    const { red, green, blue, tone, a, b } = this.plane;
    this.heap.run.colourLight(tone, a, b, red, green, blue, n, this.#p3);
  }

  /** tone, a, b → red, green, blue as tones of the space's channels. */
  toTones(n: number): void {
    const { red, green, blue, tone, a, b } = this.plane;
    this.heap.run.colourTones(tone, a, b, red, green, blue, n, this.#channels, ...this.#toneTable);
  }

  /** a and b of the darker tone (in around), with those of the lighter (in above), its share in mask and their mean in tone → those of both together. stops is anything afterwards. */
  meet(lighter: ChromaPlanes, from: number, n: number, pixels: number): void {
    const { around, above, mask, tone, stops } = this.plane;
    for (const name of CHROMA_PLANES) {
      this.heap.f32(stops, pixels).set(lighter[name].subarray(from, from + pixels));
      this.heap.run.meanChroma(around, above, mask, tone, this.plane[name], stops, this.plane[name], n);
    }
  }
}
