import { emptyPlanes } from "@/core/kernels/planes";
import { toneToLuminance, luminanceToTone } from "@/core/colour/lstar";
import { CHANNELS } from "@/core/mix/weights";
import type { OutputSpace } from "@/core/colour/printColour";
import { readTable, pairTable } from "@/core/kernels/pairTable";
import type { Placing } from "@/core/frame/frame";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import { TONE_KNOTS } from "@/core/zones/toneKnots";
import type { ForOutput } from "@/core/passes/sharpen/forOutput";
import { areaReduceRows, rowsNeeded, type Size } from "@/core/spatial/areaReduce";
import { colourWaves, type CoderNoise } from "@/core/view/coderNoise";
import { ditherRow } from "@/core/view/dither";
import { encodedLevels } from "@/core/view/toneTables";
import { BAND_PIXELS, BandMachine } from "../machine/bandMachine";
import { CHROMA_PLANES } from "../machine/chromaBand";
import { emptyRows, mapRows, type PrintRows } from "../machine/printRows";
import { PrintCutter } from "../machine/printCutter";
import { RowBands, type RowOptions, type RowSource } from "./rowBands";
import { colouredFrom } from "../evaluate/runs";
import { sharpenedRows } from "./sharpenRows";
import type { ShownMask } from "../masks/stageMasks";

export interface RowRenderer {
  /** Renders output rows `from` up to `to` into `out`: the levels of those rows, of grey or of three channels. */
  render(from: number, to: number, out: Uint8Array | Uint16Array): void;
  /** Renders the same rows as tones, with the colour on them. */
  rows(from: number, to: number): PrintRows;
}

/**
 * Renders a print at full size, or reduced, a run of rows at a time. Any split into runs and bands
 * gives the same levels.
 *
 * Shape   source of `size`, output of `output.size` (the same, or smaller).
 * Units   levels with the sRGB curve: 0–255 dithered, or with a noise, or 0–65535 rounded.
 */
export function rowRenderer(source: RowSource, plan: CompiledPlan, output: Output, options: RowOptions = {}): RowRenderer {
  const { shown } = options;
  const isColoured = output.space !== undefined && !shown && colouredFrom(plan) < Infinity;
  const bands = new RowBands(source, plan, isColoured, options);
  const { machine } = bands;
  const reduces = output.size.width !== source.size.width || output.size.height !== source.size.height;
  const columns = output.size.width;
  const write = levelWriter(machine, output, isColoured, shown);
  // Reduced rows go back into the machine, so they must fit in a band.
  const rowsAtOnce = Math.max(1, Math.min(16, Math.floor(machine.capacity / columns)));
  /** Calls for runs of output rows, with their tones in the machine. */
  const forRows = (from: number, to: number, take: TakeRows) => {
    if (!reduces) return bands.forBands(from, to, take);
    forRuns(from, to, rowsAtOnce, (y, rows) => {
      putReduced(bands, source.size, output.size, y, y + rows, shown !== undefined);
      take(y, rows);
    });
  };
  const rowsOf = (from: number, to: number): PrintRows => {
    const made = emptyRows((to - from) * columns, isColoured);
    forRows(from, to, (y) => takeRows(machine, made, (y - from) * columns));
    return made;
  };
  const sharp = output.sharpen && !shown ? sharpenedRows(rowsOf, output.size, output.sharpen) : undefined;
  return {
    rows: rowsOf,
    render(from, to, out) {
      if (!sharp) return forRows(from, to, (y, rows) => write(y, rows, out, y - from));
      const made = sharp(from, to);
      forRuns(from, to, rowsAtOnce, (y, rows) => {
        putRows(machine, made, (y - from) * columns, (y - from + rows) * columns);
        write(y, rows, out, y - from);
      });
    },
  };
}

type TakeRows = (y: number, rows: number) => void;

/** Rows from one up to another, so many at once. */
function forRuns(from: number, to: number, atOnce: number, take: TakeRows): void {
  for (let y = from; y < to; y += atOnce) take(y, Math.min(atOnce, to - y));
}

/** Puts output rows that were reduced into the machine: tones are averaged as light; a mask is as it is. */
function putReduced(bands: RowBands, source: Size, output: Size, from: number, to: number, isMask: boolean): void {
  const { machine, isColoured } = bands;
  const { width } = source;
  const { first, end } = rowsNeeded(source, output, from, to);
  const light = new Float32Array((end - first) * width);
  const colour = isColoured ? emptyPlanes((end - first) * width) : undefined;
  bands.forBands(first, end, (y) => {
    machine.take("tone", light, (y - first) * width);
    if (!colour) return;
    machine.colourLight();
    for (const name of CHANNELS) machine.take(name, colour[name], (y - first) * width);
  });
  const reduce = (plane: Float32Array) => areaReduceRows(plane, first, source, output, from, to);
  if (!isMask) for (let i = 0; i < light.length; i++) light[i] = readTable(TONE_TO_LIGHT, light[i]!);
  const reduced = reduce(light);
  if (!isMask) for (let i = 0; i < reduced.length; i++) reduced[i] = luminanceToTone(reduced[i]!);
  if (colour) {
    for (const name of CHANNELS) machine.put(name, reduce(colour[name]), 0, reduced.length);
    machine.findChroma();
  }
  machine.put("tone", reduced, 0, reduced.length);
}

function takeRows(machine: BandMachine, { tone, chroma }: PrintRows, at: number): void {
  machine.take("tone", tone, at);
  if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name], at);
}

function putRows(machine: BandMachine, { tone, chroma }: PrintRows, from: number, to: number): void {
  machine.put("tone", tone, from, to);
  if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name], from, to);
}

export interface Output {
  size: Size;
  depth: 8 | 16;
  /** Noise instead of a dither, for a coder that would take a dither away. */
  noise?: CoderNoise | undefined;
  /** A last sharpening for its size; a mask has none. */
  sharpen?: ForOutput | undefined;
  /** The space in whose channels a plan that lays colour is written; absent, it is written in grey. */
  space?: OutputSpace | undefined;
}

/** Writes what a machine holds, so many rows of output from one on, into levels from a row of theirs on. */
function levelWriter(machine: BandMachine, { size: { width }, depth, noise, space }: Output, isColoured: boolean, shown?: ShownMask) {
  if (space) machine.output.setSpace(space, depth);
  const top = depth === 8 ? 255 : 65535;
  machine.output.setTable(shown ? pairTable(1, (share) => top * share) : encodedLevels(top));
  const waves = noise && isColoured ? colourWaves(noise) : undefined;
  const dither = (y: number) => (noise ? { y, amplitude: noise.light, waves } : ditherRow(y));
  const grey = (y: number, rows: number, out: Uint8Array | Uint16Array, at: number): void => {
    if (out instanceof Uint16Array) out.set(machine.output.grey16(), at * width);
    else for (let row = 0; row < rows; row++) out.set(machine.output.grey8Row(row * width, width, dither(y + row)), (at + row) * width);
  };
  const colour = (y: number, rows: number, out: Uint8Array | Uint16Array, at: number): void => {
    if (out instanceof Uint16Array) return out.set(machine.output.print16(), 3 * at * width);
    for (let row = 0; row < rows; row++) out.set(machine.output.print8Row(row * width, width, dither(y + row)), 3 * (at + row) * width);
  };
  return isColoured ? colour : grey;
}

/**
 * Writes rows of a print that is cut out of rows of its picture, a run at a time.
 *
 * Shape   `picture` of `size`, on which the print lies; levels as `rowRenderer` gives them.
 */
export function cutRowRenderer(picture: PrintRows, size: Size, print: Placing, output: Output): Pick<RowRenderer, "render"> {
  const rowsAtOnce = Math.max(1, Math.floor(BAND_PIXELS / output.size.width));
  const machine = new BandMachine(rowsAtOnce * output.size.width, TONE_KNOTS);
  const cutter = new PrintCutter();
  const write = levelWriter(machine, output, picture.chroma !== undefined);
  const cutRows = (from: number, to: number) => mapRows(picture, (plane) => cutter.cut(plane, size, print, from, to));
  const rowsOf = output.sharpen ? sharpenedRows(cutRows, output.size, output.sharpen) : cutRows;
  return {
    render(from, to, out) {
      forRuns(from, to, rowsAtOnce, (y, rows) => {
        putRows(machine, rowsOf(y, y + rows), 0, rows * output.size.width);
        write(y, rows, out, y - from);
      });
    },
  };
}

/** Luminance over tone; fine enough that its error stays below 1e-8. */
const TONE_TO_LIGHT = pairTable(TONE_KNOTS, toneToLuminance);
