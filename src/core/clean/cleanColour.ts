import { LMS_TO_LAB, P3_TO_LMS } from "../colour/oklab";
import { invert3, multiply3, type Matrix3 } from "../colour/matrix3";
import { KernelHeap } from "../kernels/kernelHeap";
import { pairTable } from "../kernels/pairTable";
import { emptyPlanes, type Planes } from "../kernels/planes";
import { CHANNELS, lightIn } from "../mix/weights";
import { sharesInside } from "../spatial/boxBlur";
import type { ColourNoise } from "./colourNoise";

/**
 * Pixels to either side that colour is gathered from at each of four boxes, in the picture's own: compression blocks and noise are of its
 * pixels, not of its size.
 */
const REACH = 8;
/** Places between cells are read from half a cell further on. */
const APRON_OF_ROUND = 2 * (REACH + 2);
/** Rows before and after those wanted that must be known for them to be what they are in the whole picture; an even number. */
export const CLEAN_APRON = 2 * APRON_OF_ROUND + 2;

/**
 * How much a guide must vary to be followed, as a variance: lightness, a, b. In the second round a and b are the first round's result,
 * which holds less noise.
 */
const RIDGES = [
  [1e-4, 3e-3, 3e-3],
  [1e-4, 4e-4, 4e-4],
] as const;

/**
 * What was smoothed away comes back where it is more than so many deviations of the noise, and than this besides: what compression leaves
 * on level ground.
 */
const [LEAST_DEVIATIONS, LEAST_LOSS] = [4.5, 0.02];
/** And than so much of the deviation of the lightness around: at its edges, compressed colour runs over. */
const LOSS_BY_EDGES = 0.4;

const CELL_PLANES = { means: 17, slopes: 8 };

/** Planes of pixels: colour, then lightness, a, b as found, then a, b as smoothed. */
const COLOUR = 0;
const LIGHTNESS = 3;
const FOUND = 4;
const SMOOTHED = 6;
const PIXEL_PLANES = 8;
/** Where the means of the lightness's square lie in the second round: after those of three guides and of two planes. */
const LIGHTNESS_SQUARED = 5;
/** Rows of what was lost that are known at a time. */
const LOST_ROWS = 3;

/**
 * Smooths what a mix reads of colour where it is noise or the blocks of compression, and keeps it where it is an edge; the light stays as
 * it is. OKLab's a and b follow the lightness and themselves (a guided filter), then once more the lightness and what that left (rolling
 * guidance). What they lost by it comes back where it is more than noise, and small things with it.
 *
 * Shape   bands of at most `rows` rows of `width` pixels. Memory: 44 bytes a pixel of them.
 * Source  He, Sun & Tang (2013); Zhang et al., "Rolling Guidance Filter" (2014); gathered at half the size after He & Sun, "Fast Guided
 *         Filter" (2015).
 *         Compared in docs/decisions/0027-clean.md.
 */
export class ColourCleaner {
  readonly #heap: KernelHeap;
  /** Pixels of a row in the heap: a multiple of 8, so that its cells are one of 4. */
  readonly #columns: number;
  readonly #pixels: number;
  readonly #means: number;
  readonly #slopes: number;
  readonly #spare: number;
  readonly #sums: number;
  readonly #between: number;
  readonly #places: number;
  readonly #constants: number;
  readonly #across: number;
  readonly #down: number;
  readonly #lost: number;
  readonly #least: number;
  readonly #leastKnots: number;
  #rows = 0;
  readonly #row: Planes;

  /** `toP3`: the source's channels to linear P3. */
  constructor(
    readonly width: number,
    readonly rows: number,
    toP3: Matrix3,
    noise: ColourNoise,
  ) {
    this.#row = emptyPlanes(width);
    this.#columns = 8 * Math.ceil(width / 8);
    const pixels = 4 * this.#columns * even(rows);
    const cells = pixels / 4;
    const room = PIXEL_PLANES * pixels + (CELL_PLANES.means + CELL_PLANES.slopes + 1) * cells + 160 * this.#columns + 4 * rows;
    const heap = (this.#heap = new KernelHeap(room + 4096));
    this.#pixels = heap.reserve(PIXEL_PLANES * pixels);
    this.#means = heap.reserve(CELL_PLANES.means * cells);
    this.#slopes = heap.reserve(CELL_PLANES.slopes * cells);
    this.#spare = heap.reserve(cells);
    this.#sums = heap.reserve(4 * this.#columns);
    this.#between = heap.reserve(CELL_PLANES.slopes * (2 * this.#columns + 32));
    this.#places = heap.reserve(4 * CELL_PLANES.means);
    const toLms = multiply3(P3_TO_LMS, toP3);
    const { red, green, blue } = lightIn(toP3);
    this.#constants = heap.put(Float32Array.from([...toLms, ...LMS_TO_LAB, ...invert3(LMS_TO_LAB), ...invert3(toLms), red, green, blue]));
    this.#across = heap.put(sharesInside(this.#columns / 2, REACH / 2));
    this.#down = heap.reserve(4 * even(rows));
    this.#lost = heap.reserve(LOST_ROWS * this.#lostRow);
    this.#leastKnots = noise.ofPixels.length - 1;
    const leastLoss = (of: Float32Array) =>
      pairTable(this.#leastKnots, (L) => LEAST_LOSS + LEAST_DEVIATIONS * of[Math.round(L * this.#leastKnots)]!);
    this.#least = heap.put(Float32Array.from([...leastLoss(noise.ofPixels), ...leastLoss(noise.ofMeans)]));
  }

  /**
   * Cleans a band of so many rows in linear colour, of which `read` fills in one at a time, and gives rows `from` up to `to` of it to
   * `write`, which does not keep what it is given.
   * The band begins at an even row of the picture, and holds CLEAN_APRON rows more on either side where the picture does.
   */
  clean(
    rows: number,
    read: (row: number, into: Planes) => void,
    from: number,
    to: number,
    write: (row: number, colour: Planes) => void,
  ): void {
    const heap = this.#heap;
    this.#put(rows, read);
    heap.run.labOf(this.#plane(COLOUR), this.#plane(LIGHTNESS), this.#stride, this.#columns * this.#rows, this.#constants);
    heap.f64(this.#down, this.#rows / 2).set(sharesInside(this.#rows / 2, REACH / 2));
    this.#follow(FOUND, RIDGES[0]);
    this.#follow(SMOOTHED, RIDGES[1]);
    this.#bringBack();
    const first = 4 * this.#columns * from;
    const places = [COLOUR, LIGHTNESS, SMOOTHED].map((plane) => this.#plane(plane) + first) as [number, number, number];
    heap.run.recolour(...places, this.#stride, this.#columns * (to - from), this.#constants);
    for (let row = from; row < to; row++) {
      CHANNELS.forEach((name, c) => this.#row[name].set(heap.f32(this.#plane(COLOUR + c) + 4 * row * this.#columns, this.width)));
      write(row, this.#row);
    }
  }

  /** a and b as they follow the lightness and a guide's a and b. */
  #follow(guide: number, ridges: readonly [number, number, number]): void {
    const { run } = this.#heap;
    const guides = [LIGHTNESS, guide, guide + 1];
    const found = [FOUND, FOUND + 1];
    const products = guides.flatMap((plane, i) => guides.slice(i).map((other) => [plane, other]));
    const means = [
      ...[...guides, ...found].map((plane) => [plane]),
      ...products,
      ...found.flatMap((plane) => guides.map((other) => [other, plane])),
    ];
    // Where the guide is what is to follow it, some means are asked for twice.
    const laid = new Map<string, number>();
    const places = means.map((of) => {
      const key = of.toSorted((p, q) => p - q).join();
      const known = laid.get(key) ?? this.#means + laid.size * this.#cellStride;
      if (!laid.has(key)) this.#gather(of, known);
      laid.set(key, known);
      return known;
    });
    this.#heap.u32(this.#places, places.length).set(places);
    run.solveGuides(this.#places, this.#slopes, this.#cellStride, this.#cellStride / 4, ...ridges);
    for (let k = 0; k < CELL_PLANES.slopes; k++) this.#box(this.#slopes + k * this.#cellStride);
    this.#spread(guide);
  }

  /** The mean around each cell of a plane, or of the product of two. */
  #gather([plane, other]: number[], to: number): void {
    const { run } = this.#heap;
    const row = 4 * this.#columns;
    const cells = this.#columns / 2;
    for (let y = 0; y < this.#rows; y += 2) {
      const out = to + 2 * y * cells;
      if (other === undefined) run.squareMeans(this.#plane(plane!) + y * row, row, out, cells);
      else run.squareProducts(this.#plane(plane!) + y * row, this.#plane(other) + y * row, row, out, cells);
    }
    this.#box(to);
  }

  #box(plane: number): void {
    const { run } = this.#heap;
    const [columns, rows] = [this.#columns / 2, this.#rows / 2];
    run.boxRows(plane, this.#spare, columns, rows, REACH / 2, this.#across);
    run.boxColumns(this.#spare, plane, columns, rows, REACH / 2, this.#down, this.#sums);
  }

  /** a and b smoothed, pixel by pixel, from the slopes of the cells. */
  #spread(guide: number): void {
    const last = this.#rows / 2 - 1;
    const cells = 2 * this.#columns;
    for (let y = 0; y < this.#rows; y++) {
      const at = Math.min(Math.max((y - 0.5) / 2, 0), last);
      const upper = Math.min(Math.floor(at), Math.max(last - 1, 0));
      const rows = [upper, Math.min(upper + 1, last)].map((row) => this.#slopes + row * cells) as [number, number];
      const places = [LIGHTNESS, guide].map((plane) => this.#plane(plane) + 4 * y * this.#columns) as [number, number];
      const out = this.#plane(SMOOTHED) + 4 * y * this.#columns;
      this.#heap.run.followGuides(...places, this.#stride, ...rows, this.#cellStride, at - upper, this.#between, out, this.#columns);
    }
  }

  /** What a and b lost, where it stands out of noise. */
  #bringBack(): void {
    const { run } = this.#heap;
    const cells = this.#columns / 2;
    // The last round left means of lightness and of its square.
    run.deviations(this.#means, this.#means + LIGHTNESS_SQUARED * this.#cellStride, this.#spare, (cells * this.#rows) / 2);
    const row = (y: number) => Math.min(Math.max(y, 0), this.#rows - 1);
    const lostAt = (y: number) => this.#lost + (row(y) % LOST_ROWS) * this.#lostRow;
    const lose = (y: number) => {
      const at = 4 * y * this.#columns;
      run.lostRow(this.#plane(FOUND) + at, this.#plane(SMOOTHED) + at, this.#stride, lostAt(y), this.#columns);
    };
    lose(0);
    for (let y = 0; y < this.#rows; y++) {
      if (y + 1 < this.#rows) lose(y + 1);
      const at = 4 * y * this.#columns;
      run.standOut(
        ...([lostAt(y - 1), lostAt(y), lostAt(y + 1)] as const),
        this.#plane(LIGHTNESS) + at,
        this.#spare + 4 * cells * (y >> 1),
        LOSS_BY_EDGES,
        this.#least,
        this.#leastKnots,
        this.#plane(SMOOTHED) + at,
        this.#stride,
        this.#columns,
      );
    }
  }

  /** Bytes of a row of what was lost. */
  get #lostRow(): number {
    return 2 * (4 * this.#columns + 32);
  }

  get #stride(): number {
    return 4 * this.#columns * this.#rows;
  }

  get #cellStride(): number {
    return this.#columns * this.#rows;
  }

  #plane(index: number): number {
    return this.#pixels + index * this.#stride;
  }

  /** Lays a band out, its last column and row once more where cells need them. */
  #put(rows: number, read: (row: number, into: Planes) => void): void {
    this.#rows = even(rows);
    const planes = CHANNELS.map((_, c) => this.#heap.f32(this.#plane(COLOUR + c), this.#columns * this.#rows));
    for (let row = 0; row < this.#rows; row++) {
      if (row < rows) read(row, this.#row);
      CHANNELS.forEach((name, c) => {
        const at = row * this.#columns;
        planes[c]!.set(this.#row[name], at);
        planes[c]!.fill(this.#row[name].at(-1)!, at + this.width, at + this.#columns);
      });
    }
  }
}

function even(n: number): number {
  return n + (n % 2);
}
