import { pictureArea, type Placing } from "@/core/frame/frame";
import { TURN_REACH } from "@/core/kernels/turnWeights";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { Size } from "@/core/spatial/areaReduce";
import type { Mending } from "@/core/spots/mend";
import { closeReach } from "../evaluate/runs";
import type { StoredRows } from "../output/bandColours";
import { cutRowRenderer, rowRenderer, type Output, type RowRenderer } from "../output/renderRows";
import type { Bases } from "../evaluate/bases";
import { CHROMA_PLANES } from "../machine/chromaBand";
import type { PrintRows } from "../machine/printRows";
import type { ShownMask } from "../masks/stageMasks";
import { levelSink, type LevelFile } from "./levelFile";
import { RawLevels, type RawLayout } from "./rawLevels";

/** One full-size render, shared by the threads that work on it. */
export interface RenderJob {
  layout: RawLayout;
  /** The same with its colours cleaned, where the plan reads them. */
  cleaned: RawLayout | undefined;
  /** What spots are covered with, in either. */
  mendings: Mendings;
  plan: CompiledPlan;
  /** A mask to be rendered instead of the print. */
  shown: ShownMask | undefined;
  bases: Bases;
  output: Output;
  /** Where the output is cut out of the picture; absent where it is all of it. */
  cut: CutJob | undefined;
  bandPixels: number;
  /** Where the output's levels go, row after row: of grey, or of three channels. */
  levels: SharedArrayBuffer | LevelFile;
  /** Int32 cells. */
  board: SharedArrayBuffer;
}

export interface Mendings {
  found: readonly Mending[];
  cleaned: readonly Mending[];
}

/** Tones of the picture out of which a print is cut: the rows it needs, at the size at which it lies on them. */
export interface CutJob {
  picture: Size;
  first: number;
  rows: number;
  /** On those rows. */
  print: Placing;
  tones: SharedArrayBuffer;
  /** Of the colour on them, where any is laid: a, then b. */
  chroma: SharedArrayBuffer | undefined;
}

/** Cells of a board: the next row to take, rows done, 1 when it was cancelled; and the same of the rows of tones. */
export const NEXT_ROW = 0;
export const ROWS_DONE = 1;
export const STOPPED = 2;
const NEXT_TONES = 3;
const TONES_DONE = 4;
export const BOARD_CELLS = 5;

/** Rows a thread takes at a time: few enough that threads end together and a cancel is quick. */
const ROWS_AT_A_TIME = 32;
const ROWS_FOR_REACH = 8;
const LOOK_AGAIN_MS = 200;

/** What a print is cut out of, with room for it. */
export function cutJob(print: Placing, picture: Size, isColoured: boolean): CutJob {
  const { y, height } = pictureArea(print, picture, TURN_REACH);
  const plane = 4 * picture.width * height;
  const [tones, chroma] = [new SharedArrayBuffer(plane), isColoured ? new SharedArrayBuffer(2 * plane) : undefined];
  return { picture, first: y, rows: height, print: { ...print, y: print.y - y }, tones, chroma };
}

/** Rows of a job, and how many of them are done. */
export function progressOf({ output, cut, board }: RenderJob): number {
  const cells = new Int32Array(board);
  return (cells[ROWS_DONE]! + cells[TONES_DONE]!) / (output.size.height + (cut?.rows ?? 0));
}

/** Takes rows off the board and renders them until none is left or the job was cancelled. */
export function workOnJob(job: RenderJob): void {
  const board = new Int32Array(job.board);
  const sink = levelSink(job.levels, rowLevels(job), job.output.depth);
  const raw = new RawLevels(job.layout);
  const cleaned = job.cleaned && new RawLevels(job.cleaned);
  try {
    const { cut, output } = job;
    const renderer = rowRenderer(
      {
        ...storedRows(raw, job.mendings.found),
        size: job.layout,
        cleaned: cleaned && storedRows(cleaned, job.mendings.cleaned),
      },
      job.plan,
      cut ? { ...output, size: cut.picture } : output,
      { bases: job.bases, shown: job.shown, bandPixels: job.bandPixels },
    );
    const atATime = rowsAtATime(job);
    const print = (printer: Pick<RowRenderer, "render">, most: number) =>
      takeRows(board, NEXT_ROW, ROWS_DONE, output.size.height, most, (from, to) =>
        sink.write(from, to, (levels) => printer.render(from, to, levels)),
      );
    if (!cut) return print(renderer, atATime);
    const picture = sharedRows(cut);
    takeRows(board, NEXT_TONES, TONES_DONE, cut.rows, atATime, (from, to) => {
      const { tone, chroma } = renderer.rows(cut.first + from, cut.first + to);
      const at = from * cut.picture.width;
      picture.tone.set(tone, at);
      if (chroma) for (const name of CHROMA_PLANES) picture.chroma![name].set(chroma[name], at);
    });
    waitFor(board, TONES_DONE, cut.rows);
    print(cutRowRenderer(picture, { width: cut.picture.width, height: cut.rows }, cut.print, output), ROWS_AT_A_TIME);
  } finally {
    sink.close();
    raw.close();
    cleaned?.close();
  }
}

function sharedRows({ tones, chroma }: CutJob): PrintRows {
  const pixels = tones.byteLength / 4;
  const planes = chroma && { a: new Float32Array(chroma, 0, pixels), b: new Float32Array(chroma, 4 * pixels, pixels) };
  return { tone: new Float32Array(tones), chroma: planes };
}

function storedRows(raw: RawLevels, mendings: readonly Mending[]): StoredRows {
  const { width, depth, space } = raw.layout;
  return { depth, space, mendings, readRows: (y, rows) => raw.read(0, y, width, rows) };
}

/** Levels of a row of its output. */
function rowLevels({ output }: RenderJob): number {
  return (output.space ? 3 : 1) * output.size.width;
}

/** More where rows beyond those taken are worked out with them. */
function rowsAtATime({ plan, layout }: RenderJob): number {
  return Math.max(ROWS_AT_A_TIME, ROWS_FOR_REACH * closeReach(plan, Math.max(layout.width, layout.height)));
}

function takeRows(
  board: Int32Array,
  next: number,
  done: number,
  end: number,
  most: number,
  render: (from: number, to: number) => void,
): void {
  while (Atomics.load(board, STOPPED) === 0) {
    const from = Atomics.add(board, next, most);
    if (from >= end) break;
    const to = Math.min(from + most, end);
    render(from, to);
    Atomics.add(board, done, to - from);
    Atomics.notify(board, done);
  }
}

/** Waits for rows that other threads still work on; or until the job is cancelled, which a thread that ends in an error sees to. */
function waitFor(board: Int32Array, done: number, rows: number): void {
  for (let seen = Atomics.load(board, done); seen < rows && Atomics.load(board, STOPPED) === 0; seen = Atomics.load(board, done))
    Atomics.wait(board, done, seen, LOOK_AGAIN_MS);
}
