import { CoreError } from "../errors";
import { WASM_BASE64 } from "./wasmBytes.generated";

/** Pointers are byte offsets into the heap; `n` is a multiple of 4 unless said. Meaning: reference.ts. */
export interface KernelExports {
  decode8(src: number, lutR: number, lutG: number, lutB: number, matrix: number, r: number, g: number, b: number, n: number): void;
  decode16(src: number, lutR: number, lutG: number, lutB: number, matrix: number, r: number, g: number, b: number, n: number): void;
  mixWithin(r: number, g: number, b: number, out: number, n: number, wr: number, wg: number, wb: number): void;
  /** The last three: FLOOR_KNEE, SHOULDER_FROM, and a matrix. */
  mixWeights(
    ...args: [
      r: number,
      g: number,
      b: number,
      out: number,
      n: number,
      wr: number,
      wg: number,
      wb: number,
      knee: number,
      shoulder: number,
      fromP3: number,
    ]
  ): void;
  hueFade(r: number, g: number, b: number, hue: number, fade: number, n: number, constants: number): void;
  hueGain(y: number, hue: number, fade: number, n: number, table: number, knots: number): void;
  lookUp(src: number, out: number, n: number, table: number, knots: number): void;
  addLookedUp(tone: number, out: number, n: number, table: number, knots: number): void;
  /** mask: pixels after which the row begins anew, less one. */
  greyToRgba(tone: number, out: number, n: number, table: number, knots: number, ditherRow: number, mask: number): void;
  /** line: as noiseLine tells it. */
  noiseRow(out: number, n: number, line: number, amplitude: number): void;
  /** mask: as of greyToRgba. */
  offsetRow(row: number, offsets: number, mask: number, out: number, n: number): void;
  grey8(tone: number, out: number, n: number, table: number, knots: number, ditherRow: number, mask: number): void;
  grey16(tone: number, out: number, n: number, table: number, knots: number): void;
  colourToRgba(r: number, g: number, b: number, out: number, n: number, table: number, knots: number): void;
  /** counts: four histograms, one a lane. */
  histogram(tone: number, n: number, counts: number, bins: number): void;
  sampleRow(table: number, out: number, n: number, from: number, step: number, knots: number): void;
  guided(tone: number, slope: number, offset: number, out: number, n: number): void;
  /** Sums are doubles; weight, scale, shares, part too. first, end: whole numbers. n, width, columns: any, but of addRow. */
  addRow(sums: number, row: number, n: number, weight: number): void;
  reduceColumns(
    ...args: [row: number, first: number, end: number, left: number, right: number, out: number, n: number, scale: number]
  ): void;
  boxRows(src: number, out: number, width: number, height: number, reach: number, shares: number): void;
  boxColumns(src: number, out: number, width: number, height: number, reach: number, shares: number, sums: number): void;
  /** Weights around each place, and shares of them inside: floats. */
  weighRows(
    ...args: [src: number, out: number, width: number, height: number, reach: number, weights: number, shares: number, padded: number]
  ): void;
  weighColumns(src: number, out: number, width: number, height: number, reach: number, weights: number, shares: number): void;
  pairCells(a: number, b: number, part: number, out: number, columns: number): void;
  /** Surroundings in slices: `CELL_FLOATS` floats a cell; shares, own and sums are doubles, columns whole numbers of bytes. */
  splatSlices(
    ...args: [tone: number, width: number, height: number, columns: number, sums: number, counts: number, share: number, slices: number]
  ): void;
  boxAcross(src: number, out: number, width: number, height: number, reach: number, shares: number): void;
  boxDown(next: number, last: number, sums: number, out: number, n: number, share: number): void;
  meanSlices(sums: number, counts: number, cells: number, own: number, itself: number): void;
  pairRows(a: number, b: number, part: number, out: number, columns: number): void;
  sampleSlices(pairs: number, tone: number, out: number, n: number, from: number, step: number, last: number, slices: number): void;
  /**
   * A piece of a turned plane of `stride` floats a row, which begins at (fromX, fromY); `weights` as turnWeights gives them. columns, rows:
   * any.
   */
  turnPiece(
    ...args: [
      src: number,
      stride: number,
      fromX: number,
      fromY: number,
      x: number,
      y: number,
      acrossX: number,
      acrossY: number,
      downX: number,
      downY: number,
      left: number,
      top: number,
      columns: number,
      rows: number,
      out: number,
      weights: number,
    ]
  ): void;
  /** Hard dabs over a strip of rows: as/dabs.ts. */
  dabLines(
    ...args: [
      steps: number,
      left: number,
      touched: number,
      ends: number,
      stride: number,
      end: number,
      first: number,
      last: number,
      x: number,
      y: number,
      toLeft: number,
      toRight: number,
      up: number,
      down: number,
      full: number,
      all: number,
      edge: number,
      isStep: number,
      flow: number,
      step: number,
      table: number,
    ]
  ): void;
  /** n, inside: any. Answers how many pixels are in the list. */
  dabRow(
    ...args: [
      steps: number,
      left: number,
      touched: number,
      n: number,
      inside: number,
      values: number,
      finer: number,
      goal: number,
      one: number,
      powers: number,
      lines: number,
      list: number,
    ]
  ): number;
  layDab(
    ...args: [
      values: number,
      width: number,
      from: number,
      to: number,
      x: number,
      y: number,
      reach: number,
      left: number,
      right: number,
      up: number,
      down: number,
      toStep: number,
      flow: number,
      goal: number,
      table: number,
    ]
  ): void;
  addLookedUpBy(tone: number, mask: number, out: number, n: number, table: number, knots: number): void;
  mixBy(below: number, above: number, amount: number, out: number, n: number): void;
  scaleAdd(plane: number, n: number, scale: number, offset: number): void;
  throughRows(stops: number, tone: number, n: number, tables: number, knots: number, side: number, most: number): void;
  addTableBy(plane: number, by: number, tone: number, n: number, table: number, knots: number): void;
  add(a: number, b: number, out: number, n: number): void;
  multiply(a: number, b: number, out: number, n: number): void;
  addTable(plane: number, tone: number, n: number, table: number, knots: number): void;
  scaleLookedUp(plane: number, tone: number, n: number, table: number, knots: number): void;
  exposeBy(tone: number, stops: number, out: number, n: number, onPaper: number): void;
  /** values: n + 1 of them; less: as many, 0 for none. out: n + 1 pairs. */
  pairsOf(values: number, less: number, out: number, n: number): void;
  between(a: number, b: number, share: number, out: number, n: number): void;
  meanLight(a: number, b: number, share: number, out: number, n: number, table: number, knots: number): void;
  /** Planes `stride` bytes apart: moments in the order of MOMENTS, grain as the darker's channels, the lighter's, the share. */
  addMoments(
    ...args: [r: number, g: number, b: number, by: number, sums: number, stride: number, n: number, wr: number, wg: number, wb: number]
  ): void;
  pairMeans(src: number, out: number, n: number): void;
  grainOf(
    ...args: [
      moments: number,
      out: number,
      stride: number,
      n: number,
      wr: number,
      wg: number,
      wb: number,
      leastDepth: number,
      leastShare: number,
    ]
  ): void;
  packGrain(mean: number, grain: number, stride: number, out: number, n: number): void;
  unpackGrain(mean: number, packed: number, grain: number, stride: number, n: number): void;
  /** Colours by how far they lie from others: as/alike.ts. */
  distanceFrom(
    ...args: [
      r: number,
      g: number,
      b: number,
      out: number,
      n: number,
      constants: number,
      colours: number,
      count: number,
      weight: number,
      reach: number,
    ]
  ): void;
  /** Colour beside the tone: as/chroma.ts. */
  /** scale: 0 where there is none. */
  layChroma(plane: number, laid: number, scale: number, amount: number, n: number, replaces: number): void;
  /** outRoot: 0 where it is not asked for. */
  chromaOf(r: number, g: number, b: number, outA: number, outB: number, outRoot: number, n: number, constants: number): void;
  followTone(root: number, tone: number, out: number, n: number, saturation: number): void;
  colourLight(tone: number, a: number, b: number, r: number, g: number, blue: number, n: number, constants: number): void;
  /** Tables: levels over light, levels over tone. */
  colour16(
    ...args: [
      tone: number,
      a: number,
      b: number,
      out: number,
      n: number,
      constants: number,
      levels: number,
      knots: number,
      greys: number,
      greyKnots: number,
    ]
  ): void;
  /**
   * mask: as of greyToRgba. nextRow: bytes from the greys' row of dither to red's, and on to green's and blue's; 0 where they share one.
   */
  colour8(
    ...args: [
      tone: number,
      a: number,
      b: number,
      out: number,
      n: number,
      constants: number,
      levels: number,
      knots: number,
      greys: number,
      greyKnots: number,
      ditherRow: number,
      mask: number,
      nextRow: number,
    ]
  ): void;
  colourRgba(
    ...args: [
      tone: number,
      a: number,
      b: number,
      out: number,
      n: number,
      constants: number,
      levels: number,
      knots: number,
      greys: number,
      greyKnots: number,
      ditherRow: number,
      mask: number,
    ]
  ): void;
  meanChroma(
    ...args: [toneA: number, toneB: number, share: number, mean: number, a: number, b: number, otherA: number, otherB: number, n: number]
  ): void;
  /** Cleaning of colour: as/clean.ts. */
  labOf(colour: number, out: number, stride: number, n: number, constants: number): void;
  squareMeans(p: number, row: number, out: number, n: number): void;
  squareProducts(p: number, q: number, row: number, out: number, n: number): void;
  solveGuides(places: number, out: number, stride: number, n: number, ridge0: number, ridge1: number, ridge2: number): void;
  followGuides(
    ...args: [
      lightness: number,
      ab: number,
      guideStride: number,
      upper: number,
      lower: number,
      stride: number,
      part: number,
      between: number,
      out: number,
      n: number,
    ]
  ): void;
  deviations(mean: number, square: number, out: number, n: number): void;
  lostRow(found: number, smoothed: number, stride: number, out: number, n: number): void;
  standOut(
    ...args: [
      above: number,
      here: number,
      below: number,
      lightness: number,
      cells: number,
      byEdges: number,
      tables: number,
      knots: number,
      smoothed: number,
      stride: number,
      n: number,
    ]
  ): void;
  recolour(colour: number, lightness: number, ab: number, stride: number, n: number, constants: number): void;
  /** Colour before it is mixed: as/colour.ts. mask: 0 for none. */
  separate(
    ...args: [r: number, g: number, b: number, n: number, constants: number, along: number, across: number, knots: number, parting: number]
  ): void;
  lightColour(r: number, g: number, b: number, stops: number, n: number, constants: number): void;
  towardsColour(
    ...args: [r: number, g: number, b: number, wasR: number, wasG: number, wasB: number, mask: number, amount: number, n: number]
  ): void;
  throughMatrix(colour: number, stride: number, n: number, matrix: number): void;
  /** Frames enlarged: as/enlarge.ts. n of the first: bytes, a multiple of 16. columns: 8 bytes a pixel. */
  betweenRows(upper: number, lower: number, out: number, n: number, part: number): void;
  besideEnlarged(row: number, columns: number, frame: number, out: number, n: number): void;
  enlargedWith(row: number, columns: number, detail: number, out: number, n: number): void;
  /** mode: place in BLEND_MODES. */
  blendPlanes(below: number, above: number, out: number, n: number, mode: number): void;
}

/** Floats of a cell of surroundings in slices: as many slices at the most. */
export const CELL_FLOATS = 12;

const PAGE = 65536;
let compiled: WebAssembly.Module | undefined;

/** The compiled kernels; the same bytes everywhere, compiled once a thread. */
function kernelModule(): WebAssembly.Module {
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(WASM_BASE64), (char) => char.charCodeAt(0)));
  return compiled;
}

/**
 * A private WebAssembly memory with the kernels on it and a bump allocator: room is reserved once,
 * then reused for every band.
 *
 * Errors  CoreError `bad_size` when more is asked for than was reserved.
 */
export class KernelHeap {
  readonly run: KernelExports;
  readonly #memory: WebAssembly.Memory;
  #next = 16; // 0 stays free, so that a forgotten pointer shows

  constructor(bytes: number) {
    const pages = Math.ceil((bytes + 1024) / PAGE);
    this.#memory = new WebAssembly.Memory({ initial: pages, maximum: pages });
    const instance = new WebAssembly.Instance(kernelModule(), { env: { memory: this.#memory, abort: () => {}, exp: Math.exp } });
    this.run = instance.exports as unknown as KernelExports;
  }

  /** Reserves bytes, aligned to 16. */
  reserve(bytes: number): number {
    const at = this.#next;
    this.#next += Math.ceil(bytes / 16) * 16;
    if (this.#next > this.#memory.buffer.byteLength) {
      throw new CoreError("bad_size", `kernel heap is full: ${bytes} bytes more do not fit`, { bytes });
    }
    return at;
  }

  /** Gives all that was reserved back; what lies there is nobody's. */
  clear(): void {
    this.#next = 16;
  }

  /** Reserves room for values and lays them there. */
  put(values: Float32Array | Float64Array | Int32Array | Uint32Array): number {
    const at = this.reserve(values.byteLength);
    this.u8(at, values.byteLength).set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
    return at;
  }

  f32(pointer: number, length: number): Float32Array<ArrayBuffer> {
    return new Float32Array(this.#memory.buffer, pointer, length);
  }

  f64(pointer: number, length: number): Float64Array<ArrayBuffer> {
    return new Float64Array(this.#memory.buffer, pointer, length);
  }

  i32(pointer: number, length: number): Int32Array<ArrayBuffer> {
    return new Int32Array(this.#memory.buffer, pointer, length);
  }

  u32(pointer: number, length: number): Uint32Array<ArrayBuffer> {
    return new Uint32Array(this.#memory.buffer, pointer, length);
  }

  i16(pointer: number, length: number): Int16Array<ArrayBuffer> {
    return new Int16Array(this.#memory.buffer, pointer, length);
  }

  u16(pointer: number, length: number): Uint16Array<ArrayBuffer> {
    return new Uint16Array(this.#memory.buffer, pointer, length);
  }

  u8(pointer: number, length: number): Uint8Array<ArrayBuffer> {
    return new Uint8Array(this.#memory.buffer, pointer, length);
  }
}

/** Kept from one use to the next: fresh memory costs more than most sums. */
let scratch: { heap: KernelHeap; bytes: number } | undefined;

/** A heap with room for so many bytes in at most 64 pieces, until somebody asks for the next one; what lies there is anything. */
export function scratchHeap(bytes: number): KernelHeap {
  const needed = bytes + 64 * 16;
  if (!scratch || scratch.bytes < needed) scratch = { heap: new KernelHeap(needed), bytes: needed };
  scratch.heap.clear();
  return scratch.heap;
}
