import { emptyPlanes } from "@/core/kernels/planes";
import { toneToLuminance, luminanceToTone } from "@/core/colour/lstar";
import { CHANNELS } from "@/core/mix/weights";
import type { OutputSpace } from "@/core/colour/printColour";
import { pairTable } from "@/core/kernels/pairTable";
import type { Placing } from "@/core/frame/frame";
import { readTable } from "@/core/kernels/reference";
import type { CompiledMask, CompiledPlan } from "@/core/plan/compilePlan";
import { TONE_KNOTS } from "@/core/zones/toneKnots";
import type { ForOutput } from "@/core/passes/sharpen/forOutput";
import { areaReduceRows, rowsNeeded, type Size } from "@/core/spatial/areaReduce";
import { colourWaves, type CoderNoise } from "@/core/view/coderNoise";
import { ditherRow } from "@/core/view/dither";
import { encodedLevels } from "@/core/view/toneTables";
import { bandColours, maskPicture, putColour, taken, takenColour, type StoredRows } from "./bandColours";
import { BAND_PIXELS, BandMachine } from "./bandMachine";
import { layStrokes } from "@/core/brush/layStrokes";
import { gridOf, type Grid } from "@/core/region/grid";
import { rasterShape, type DrawnShape } from "@/core/region/rasterShape";
import { isReadOnTheWay, looksAtPicture, type MaskBases } from "./maskKeys";
import { gateTableOf, maskPlane, multiplyBy, repairPlane, type MaskPicture } from "./maskPlane";
import { detailOf } from "@/core/spatial/detail";
import { closeReach, colouredFrom, NO_HAND, returnsColour, runsOf } from "./runs";
import { CHROMA_PLANES } from "./chromaBand";
import { emptyRows, mapRows, type PrintRows } from "./printRows";
import { applyRun, changeColour, NO_BASES, type Bases, type Laid } from "./applyRun";
import type { ShownMask } from "./stageMasks";
import { inNewState } from "./grownPlane";
import { PrintCutter } from "./printCutter";
import { sharpenedRows } from "./sharpenRows";
import { StopsPlanes } from "./stopsPlanes";
import type { LayStrokes } from "./strokeMaps";

/** Rows of a band for each one beyond it that is worked out with it, as long as its pixels are no more than these: a machine holds some twenty numbers for each. */
const BAND_REACHES = 6;
const MOST_BAND_PIXELS = 1 << 21;

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
 * Passes that gather, and masks that look at the whole picture, need what only it can tell.
 *
 * With `shown` it renders that mask instead, on the tones that leave the plan, linear from 0 to full.
 *
 * Shape   source of `size`, output of `output.size` (the same, or smaller).
 * Units   levels with the sRGB curve: 0–255 dithered, or with a noise, or 0–65535 rounded.
 */
export function rowRenderer(
  source: StoredRows & { size: Size; cleaned?: StoredRows | undefined },
  plan: CompiledPlan,
  output: Output,
  { bases = NO_BASES, bandPixels = BAND_PIXELS, shown }: { bases?: Bases; bandPixels?: number; shown?: ShownMask | undefined } = {},
): RowRenderer {
  const { width } = source.size;
  const runs = runsOf(plan, NO_HAND);
  const stops = new StopsPlanes(source.size);
  const looksAround = plan.colour.some(({ step }) => step.kind === "light" && step.around);
  const seesBeforeMix = !!shown?.beforeMix || plan.colour.some(({ mask }) => mask && looksAtPicture(mask));
  const seesPicture = seesBeforeMix || [shown?.mask, ...runs.map(({ mask }) => mask)].some((mask) => mask && looksAtPicture(mask));
  const longEdge = Math.max(width, source.size.height);
  const isColoured = output.space !== undefined && !shown && colouredFrom(plan) < Infinity;
  // Masks find what they see in the machine, where the colour that is mixed lies.
  const keepsMixed = seesPicture && runs.some((run) => run.mixed ?? returnsColour(run));
  const reach = closeReach(plan, longEdge);
  // Where tones are compared with those around, what lies beyond a band is worked out with it: the band is large beside that.
  const most = Math.max(reach, Math.floor(MOST_BAND_PIXELS / width));
  const rowsInBand = Math.max(1, Math.floor(bandPixels / width), Math.min(BAND_REACHES * reach, most));
  const machine = new BandMachine(Math.max(bandPixels, width * (rowsInBand + 2 * reach)), TONE_KNOTS);
  machine.setMix(plan);
  const load = bandColours(machine, source, width, plan.clean, { colour: seesPicture, plain: seesBeforeMix || looksAround });
  const reduces = output.size.width !== width || output.size.height !== source.size.height;

  /** Runs the plan over source rows, a band at a time; the tones are then in the machine. */
  const forBands = (first: number, end: number, take: (y: number, rows: number) => void) => {
    for (let inner = first; inner < end; inner += rowsInBand) {
      const innerRows = Math.min(rowsInBand, end - inner);
      const y = Math.max(inner - reach, 0);
      const rows = Math.min(inner + innerRows + reach, source.size.height) - y;
      const seen = load(y, rows);
      const place = { x: 0, y, width, whole: source.size };
      const grid = gridOf({ width, height: rows }, 0, y, source.size);
      // Before the mix masks see the tones as found.
      const seenBeforeMix = seesBeforeMix ? maskPicture(seen, seen.plain!) : NO_PICTURE;
      const layBeforeMix = maskLayer(grid, seenBeforeMix, bases.colour.masks, stops);
      const planes = plan.colour.map(({ mask }) => mask && layBeforeMix(mask).plane);
      if (looksAround) machine.put("tone", seen.plain!, 0, rows * width);
      changeColour(machine, plan.colour, planes, bases.colour, place);
      const mixed = keepsMixed ? takenColour(machine, rows * width) : undefined;
      if (machine.movesHues) machine.findHues();
      machine.mix();
      if (isColoured) machine.clearChroma();
      const picture = seesPicture ? maskPicture(seen, taken(machine, "tone", rows * width)) : NO_PICTURE;
      const layMask = maskLayer(grid, picture, bases.masks, stops);
      for (const run of runs) {
        if (run.chroma && !isColoured) continue;
        const painted =
          run.stops &&
          stops.plane({ id: plan.passes[run.from]!.id, placed: run.stops.placed, frame: plan.frame }, grid, layOn(grid))?.plane;
        const laid = run.mask && layMask(run.mask); // may need the machine
        if (mixed && (run.mixed || returnsColour(run))) putColour(machine, mixed);
        if (run.mixed?.mix.hueTable) machine.findHues();
        if (returnsColour(run)) machine.findOwnChroma();
        const differences =
          run.detail && detailOf(taken(machine, "tone", rows * width), { width, height: rows }, run.detail.radius * longEdge);
        applyRun(machine, run, { base: bases.steps.get(run.from), ...laid, painted, differences, first: 0 }, place);
      }
      if (shown) {
        const gate = bases.steps.get(plan.passes.length)?.gate;
        const { plane, added } = shown.mask ? (shown.beforeMix ? layBeforeMix : layMask)(shown.mask) : EVERYWHERE;
        machine.putNext("mask", plane ?? new Float32Array(rows * width).fill(1), 0);
        if (gate) machine.narrowMask(gate, place);
        if (isReadOnTheWay(shown.mask?.gate)) machine.gateMask(gateTableOf(shown.mask.gate));
        if (added) machine.widenMask(added, 0);
        machine.showMask(shown.reach);
      }
      if (rows > innerRows) {
        const [from, to] = [(inner - y) * width, (inner - y + innerRows) * width];
        const planes = (isColoured ? PRINT_PLANES : (["tone"] as const)).map((name) => [name, taken(machine, name, rows * width)] as const);
        for (const [name, plane] of planes) machine.put(name, plane, from, to);
      }
      take(inner, innerRows);
    }
  };

  const columns = output.size.width;
  const write = levelWriter(machine, output, isColoured, shown);
  // Reduced rows go back into the machine, so they must fit in a band.
  const rowsAtOnce = Math.max(1, Math.min(16, Math.floor(machine.capacity / columns)));
  /** Puts reduced rows into the machine. */
  const putReduced = (from: number, to: number): void => {
    const { first, end } = rowsNeeded(source.size, output.size, from, to);
    const light = new Float32Array((end - first) * width);
    const colour = isColoured ? emptyPlanes((end - first) * width) : undefined;
    forBands(first, end, (sourceY) => {
      machine.take("tone", light, (sourceY - first) * width);
      if (!colour) return;
      machine.colourLight();
      for (const name of CHANNELS) machine.take(name, colour[name], (sourceY - first) * width);
    });
    const reduce = (plane: Float32Array) => areaReduceRows(plane, first, source.size, output.size, from, to);
    // Tones are averaged as light; a mask is as it is.
    if (!shown) for (let i = 0; i < light.length; i++) light[i] = readTable(TONE_TO_LIGHT, light[i]!);
    const reduced = reduce(light);
    if (!shown) for (let i = 0; i < reduced.length; i++) reduced[i] = luminanceToTone(reduced[i]!);
    if (colour) {
      for (const name of CHANNELS) machine.put(name, reduce(colour[name]), 0, reduced.length);
      machine.findChroma();
    }
    machine.put("tone", reduced, 0, reduced.length);
  };
  /** Shows runs of output rows, few at a time, with their tones in the machine. */
  const forRows = (from: number, to: number, take: (y: number, rows: number) => void) => {
    if (!reduces) return forBands(from, to, take);
    for (let y = from; y < to; y += rowsAtOnce) {
      const rows = Math.min(rowsAtOnce, to - y);
      putReduced(y, y + rows);
      take(y, rows);
    }
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
      for (let y = from; y < to; y += rowsAtOnce) {
        const rows = Math.min(rowsAtOnce, to - y);
        putRows(machine, made, (y - from) * columns, (y - from + rows) * columns);
        write(y, rows, out, y - from);
      }
    },
  };
}

const PRINT_PLANES = ["tone", ...CHROMA_PLANES] as const;

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
  if (space) machine.setOutputSpace(space, depth);
  const top = depth === 8 ? 255 : 65535;
  machine.setOutputTable(shown ? pairTable(1, (share) => top * share) : encodedLevels(top));
  const waves = noise && isColoured ? colourWaves(noise) : undefined;
  const dither = (y: number) => (noise ? { y, amplitude: noise.light, waves } : ditherRow(y));
  const grey = (y: number, rows: number, out: Uint8Array | Uint16Array, at: number): void => {
    if (out instanceof Uint16Array) out.set(machine.grey16(), at * width);
    else for (let row = 0; row < rows; row++) out.set(machine.grey8Row(row * width, width, dither(y + row)), (at + row) * width);
  };
  const colour = (y: number, rows: number, out: Uint8Array | Uint16Array, at: number): void => {
    if (out instanceof Uint16Array) return out.set(machine.print16(), 3 * at * width);
    for (let row = 0; row < rows; row++) out.set(machine.print8Row(row * width, width, dither(y + row)), 3 * (at + row) * width);
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
      for (let y = from; y < to; y += rowsAtOnce) {
        const rows = Math.min(rowsAtOnce, to - y);
        putRows(machine, rowsOf(y, y + rows), 0, rows * output.size.width);
        write(y, rows, out, y - from);
      }
    },
  };
}

type LaidMask = Pick<Laid, "plane" | "added">;
const EVERYWHERE: LaidMask = { plane: undefined, added: undefined };

/** Lays masks out on a band; passes that act through the same one share what is laid out. */
function maskLayer(grid: Grid, picture: MaskPicture, bases: MaskBases, stops: StopsPlanes): (mask: CompiledMask) => LaidMask {
  const masks = new Map<string, LaidMask>();
  const layMask = (mask: CompiledMask): LaidMask => {
    const parts = [mask, grid, picture, bases, (shape: DrawnShape) => layShape(shape, grid, stops)] as const;
    const known = masks.get(mask.key);
    if (known) return known;
    const laid = { plane: maskPlane(...parts), added: repairPlane(...parts) };
    masks.set(mask.key, laid);
    const within = mask.within && layMask(mask.within).plane!;
    if (within) for (const plane of [laid.plane, laid.added]) if (plane) multiplyBy(plane, within);
    return laid;
  };
  return layMask;
}

function layShape(shape: DrawnShape, grid: Grid, { strokeMaps }: StopsPlanes): Float32Array {
  return (shape.kind === "brush" && strokeMaps.brushed(shape, grid)) || rasterShape(shape, grid);
}

/** Lays strokes out on a band. */
function layOn(grid: Grid): LayStrokes {
  return (_, strokes, goalOf) => {
    const plane = new Float32Array(grid.width * grid.height);
    layStrokes(plane, grid, strokes, goalOf);
    return inNewState(plane);
  };
}

/** For masks of regions alone, which look at no picture. */
const NONE = new Float32Array(0);
const NO_PICTURE: MaskPicture = { red: NONE, green: NONE, blue: NONE, mixed: () => NONE, hues: () => ({ hue: NONE, fade: NONE }) };

/** Luminance over tone; fine enough that its error stays below 1e-8. */
const TONE_TO_LIGHT = pairTable(TONE_KNOTS, toneToLuminance);
