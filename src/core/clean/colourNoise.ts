import type { Planes } from "../kernels/planes";
import { LMS_TO_LAB, P3_TO_LMS } from "../colour/oklab";
import { multiply3, type Matrix3 } from "../colour/matrix3";
import { KernelHeap } from "../kernels/kernelHeap";
import { CHANNELS } from "../mix/weights";

/** Noise of OKLab's a and b over lightness 0–1, as a standard deviation of each, at even steps from 0 to 1. */
export interface ColourNoise {
  /** Of single pixels. */
  ofPixels: Float32Array;
  /** Of means of 3 × 3 pixels. */
  ofMeans: Float32Array;
}

/** Rows that noise is measured in at a time, and columns. */
export const NOISE_BLOCK = 48;
/** Lightnesses told apart. */
const BINS = 16;
/** So many of a lightness's blocks are flatter than the one that is believed: in most there is more than noise. */
const FLAT_SHARE = 0.3;
/** Fewer blocks tell nothing by themselves. */
const LEAST_BLOCKS = 6;
/** From one mean to the next, in pixels: noise that hangs together over some of them is noise too. */
const MEANS_APART = 6;
/** A second difference of noise is so many times as large as the noise, and the median of its size this part of its deviation. */
const [SECOND_DIFFERENCE, MEDIAN_OF_SIZE] = [Math.sqrt(6), 0.6745];

interface Block {
  lightness: number;
  ofPixels: number;
  ofMeans: number;
}

/**
 * Measures how much of a picture's colour is noise, by lightness: in its flattest places, by medians of second differences, which neither
 * gradients nor small things move.
 *
 * Shape   strips of NOISE_BLOCK rows, `width` pixels wide.
 * Source  noise over level: Liu et al., "Noise Estimation from a Single Image" (2006); medians: Donoho & Johnstone (1994). Compared in
 *         docs/decisions/0027-clean.md.
 */
export class ColourNoiseMeter {
  readonly #heap: KernelHeap;
  readonly #colour: number;
  readonly #lab: number;
  readonly #constants: number;
  readonly #blocks: Block[] = [];

  /** `toP3`: the source's channels to linear P3. */
  constructor(
    readonly width: number,
    toP3: Matrix3,
  ) {
    const plane = 4 * this.#pixels;
    this.#heap = new KernelHeap(6 * plane + 1024);
    this.#colour = this.#heap.reserve(3 * plane);
    this.#lab = this.#heap.reserve(3 * plane);
    this.#constants = this.#heap.put(Float32Array.from([...multiply3(P3_TO_LMS, toP3), ...LMS_TO_LAB]));
  }

  get #pixels(): number {
    return 4 * Math.ceil((this.width * NOISE_BLOCK) / 4);
  }

  /** Takes a strip of linear colour into account. */
  add(strip: Planes): void {
    const heap = this.#heap;
    const stride = 4 * this.#pixels;
    CHANNELS.forEach((name, c) => heap.f32(this.#colour + c * stride, strip[name].length).set(strip[name]));
    heap.run.labOf(this.#colour, this.#lab, stride, this.#pixels, this.#constants);
    const [lightness, a, b] = [0, 1, 2].map((k) => heap.f32(this.#lab + k * stride, this.#pixels));
    for (let x = 0; x + NOISE_BLOCK <= this.width; x += NOISE_BLOCK) {
      const [inA, inB] = [a!, b!].map((plane) => noiseOf(plane, x, this.width)) as [Noise, Noise];
      const together = (which: keyof Noise) => Math.hypot(inA[which], inB[which]) / Math.SQRT2;
      const block = { lightness: meanOf(lightness!, x, this.width), ofPixels: together("ofPixels"), ofMeans: together("ofMeans") };
      this.#blocks.push(block);
    }
  }

  /** What was found; none where there was too little to measure. */
  measured(): ColourNoise {
    return { ofPixels: this.#over("ofPixels"), ofMeans: this.#over("ofMeans") };
  }

  #over(which: keyof Noise): Float32Array {
    const bins = Array.from({ length: BINS }, (_, bin) => {
      const here = this.#blocks.filter(({ lightness }) => Math.floor(lightness * BINS) === bin);
      return here.length >= LEAST_BLOCKS ? flattest(here.map((block) => block[which])) : undefined;
    });
    const known = bins.flatMap((noise, bin) => (noise === undefined ? [] : [{ noise, bin }]));
    const all = flattest(this.#blocks.map((block) => block[which]));
    const near = (bin: number) => known.toSorted((a, b) => Math.abs(a.bin - bin) - Math.abs(b.bin - bin))[0]?.noise ?? all;
    // Between the middles of two bins lies what is between them.
    return Float32Array.from({ length: BINS + 1 }, (_, k) => (near(Math.max(k - 1, 0)) + near(Math.min(k, BINS - 1))) / 2);
  }
}

interface Noise {
  ofPixels: number;
  ofMeans: number;
}

/** The noise of a block that begins at a column. */
function noiseOf(plane: Float32Array, from: number, width: number): Noise {
  const at = (x: number, y: number) => plane[y * width + from + x]!;
  const means = NOISE_BLOCK / MEANS_APART;
  const small = Float32Array.from({ length: means ** 2 }, (_, i) => {
    const [x, y] = [MEANS_APART * (i % means), MEANS_APART * Math.floor(i / means)];
    let sum = 0;
    for (let v = 0; v < 3; v++) for (let u = 0; u < 3; u++) sum += at(x + u, y + v);
    return sum / 9;
  });
  return { ofPixels: deviation(at, NOISE_BLOCK), ofMeans: deviation((x, y) => small[y * means + x]!, means) };
}

/** The deviation of a square of values as their second differences tell it, along and across. */
function deviation(at: (x: number, y: number) => number, edge: number): number {
  const sizes = new Float32Array(2 * edge * (edge - 2));
  let n = 0;
  for (let y = 0; y < edge; y++)
    for (let x = 1; x < edge - 1; x++) {
      sizes[n++] = Math.abs(at(x - 1, y) - 2 * at(x, y) + at(x + 1, y));
      sizes[n++] = Math.abs(at(y, x - 1) - 2 * at(y, x) + at(y, x + 1));
    }
  return sizes.sort()[n >> 1]! / (SECOND_DIFFERENCE * MEDIAN_OF_SIZE);
}

function meanOf(plane: Float32Array, from: number, width: number): number {
  let sum = 0;
  for (let y = 0; y < NOISE_BLOCK; y++) for (let x = from; x < from + NOISE_BLOCK; x++) sum += plane[y * width + x]!;
  return sum / NOISE_BLOCK ** 2;
}

function flattest(values: number[]): number {
  return values.toSorted((a, b) => a - b)[Math.floor(FLAT_SHARE * values.length)] ?? 0;
}
