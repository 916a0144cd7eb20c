import { CHROMA_CONSTANTS, chromaConstants, type OutputSpace } from "@/core/colour/printColour";
import type { KernelHeap } from "@/core/kernels/kernelHeap";
import { encodedLight } from "@/core/view/toneTables";
import type { PlaneName } from "./bandMachine";

/** Hue in turns, and how far a place is coloured, 0–1. */
export interface Hues {
  hue: Float32Array;
  fade: Float32Array;
}

/** a and b of OKLab, pixel by pixel, beside the tones of a print. */
export interface ChromaPlanes {
  a: Float32Array;
  b: Float32Array;
}
export const CHROMA_PLANES = ["a", "b"] as const;

/** Those of a picture's own colours, with 1 ∕ the third root of their luminance. */
export interface OwnChroma extends ChromaPlanes {
  root: Float32Array;
}

/** Knots of tables of levels over light, by their bits: steep at black, they err by less than a tenth of a level there. */
const LIGHT_KNOTS = { 8: 4096, 16: 16384 } as const;
const LEVELS: { [depth in 8 | 16]?: Float32Array } = {};

/** The colour beside the tones of the band in a machine. `n` counts its pixels, a multiple of 4. */
export class ChromaBand {
  readonly #channels: number;
  readonly #p3: number;
  readonly #levels: number;
  #written: { space: OutputSpace; depth: 8 | 16 } | undefined;

  /** Bytes it reserves in its machine's heap. */
  static readonly bytes = 2 * 4 * (CHROMA_CONSTANTS + 4) + 8 * (LIGHT_KNOTS[16] + 2);

  constructor(
    readonly heap: KernelHeap,
    readonly plane: Readonly<Record<PlaneName, number>>,
  ) {
    this.#channels = heap.reserve(4 * CHROMA_CONSTANTS);
    this.#p3 = heap.reserve(4 * CHROMA_CONSTANTS);
    this.#levels = heap.reserve(8 * (LIGHT_KNOTS[16] + 1));
    heap.f32(this.#p3, CHROMA_CONSTANTS).set(chromaConstants("display-p3"));
  }

  /** Sets the space whose channels are shown and written, and in how many bits. */
  setOutput(space: OutputSpace, depth: 8 | 16): void {
    if (this.#written?.space === space && this.#written.depth === depth) return;
    this.#written = { space, depth };
    this.heap.f32(this.#channels, CHROMA_CONSTANTS).set(chromaConstants(space));
    const table = (LEVELS[depth] ??= encodedLight(depth === 8 ? 255 : 65535, LIGHT_KNOTS[depth]));
    this.heap.f32(this.#levels, table.length).set(table);
  }

  clear(n: number): void {
    for (const name of CHROMA_PLANES) this.heap.f32(this.plane[name], n).fill(0);
  }

  /** red, green, blue in linear P3 → a, b; or, as the colour's own, in hue and fade, with what tells its light in around. */
  ofColour(n: number, isOwn: boolean): void {
    const { red, green, blue, a, b, hue, fade, around } = this.plane;
    const out = isOwn ? ([hue, fade, around] as const) : ([a, b, 0] as const);
    this.heap.run.chromaOf(red, green, blue, ...out, n, this.#p3);
  }

  /** tone, a, b → red, green, blue in linear P3, beyond it where they lie there. */
  toLight(n: number): void {
    const { red, green, blue, tone, a, b } = this.plane;
    this.heap.run.colourLight(tone, a, b, red, green, blue, n, this.#p3);
  }

  /**
   * tone, a, b of `n` pixels from one on → opaque pixels; `greys` is the table of levels over tone, with its knots, `dither` the row of
   * offsets and where it begins anew.
   */
  toRgba(from: number, n: number, out: number, greys: readonly [number, number], dither: readonly [number, number]): void {
    const [tone, a, b] = this.#from(from);
    this.heap.run.colourRgba(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[8], ...greys, ...dither);
  }

  /**
   * The same as levels of three channels at 8 bits; `nextRow` is how far behind the greys' row of offsets red's lies, and green's and
   * blue's behind it; 0 where they share one.
   */
  to8(from: number, n: number, out: number, greys: readonly [number, number], dither: readonly [number, number], nextRow: number): void {
    const [tone, a, b] = this.#from(from);
    this.heap.run.colour8(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[8], ...greys, ...dither, nextRow);
  }

  /** The same as levels of three channels at 16 bits. */
  to16(n: number, out: number, greys: readonly [number, number]): void {
    const [tone, a, b] = this.#from(0);
    this.heap.run.colour16(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[16], ...greys);
  }

  #from(pixel: number): [number, number, number] {
    const { tone, a, b } = this.plane;
    return [tone + 4 * pixel, a + 4 * pixel, b + 4 * pixel];
  }

  /**
   * a, b of the lighter tone (in above), with those of the darker, the lighter's share in mask and their mean in tone → those of both
   * together.
   */
  meet(n: number): void {
    const { darker, above, mask, tone, a, b, darkerA, darkerB } = this.plane;
    this.heap.run.meanChroma(darker, above, mask, tone, darkerA, darkerB, a, b, n);
    for (const [made, place] of [[darkerA, a], [darkerB, b]] as const) this.heap.f32(place, n).set(this.heap.f32(made, n)); // prettier-ignore
  }
}
