import type { CompiledPlan } from "@/core/plan/compilePlan";
import type { Size } from "@/core/spatial/areaReduce";
import { rowRenderer } from "../renderRows";
import type { Bases } from "../applyRun";
import type { ShownMask } from "../stageMasks";
import { RawLevels, type RawLayout } from "./rawLevels";

/** One full-size render, shared by the threads that work on it. */
export interface RenderJob {
  layout: RawLayout;
  plan: CompiledPlan;
  /** A mask to be rendered instead of the print. */
  shown: ShownMask | undefined;
  bases: Bases;
  output: { size: Size; depth: 8 | 16; noise?: number | undefined };
  bandPixels: number;
  /** The output's grey levels, row after row. */
  levels: SharedArrayBuffer;
  /** Int32 cells: the next row to take, rows done, 1 when it was cancelled. */
  board: SharedArrayBuffer;
}

export const NEXT_ROW = 0;
export const ROWS_DONE = 1;
export const STOPPED = 2;

/** Rows a thread takes at a time: few enough that threads end together and a cancel is quick. */
const ROWS_AT_A_TIME = 32;

/** Takes rows off the board and renders them until none is left or the job was cancelled. */
export function workOnJob(job: RenderJob): void {
  const board = new Int32Array(job.board);
  const out = job.output.depth === 8 ? new Uint8Array(job.levels) : new Uint16Array(job.levels);
  const raw = new RawLevels(job.layout);
  try {
    const { width, height, depth, space } = job.layout;
    const readRows = (y: number, rows: number) => raw.read(0, y, width, rows);
    const renderer = rowRenderer({ size: { width, height }, depth, space, readRows }, job.plan, job.output, {
      bases: job.bases,
      shown: job.shown,
      bandPixels: job.bandPixels,
    });
    const end = job.output.size.height;
    while (Atomics.load(board, STOPPED) === 0) {
      const from = Atomics.add(board, NEXT_ROW, ROWS_AT_A_TIME);
      if (from >= end) break;
      const to = Math.min(from + ROWS_AT_A_TIME, end);
      renderer.render(from, to, out);
      Atomics.add(board, ROWS_DONE, to - from);
    }
  } finally {
    raw.close();
  }
}
