import { Worker } from "node:worker_threads";
import type { OutputSpace } from "@/core/colour/printColour";
import { CoreError } from "@/core/errors";
import { isWholeFrame, pictureSizeAt, placingOf, printOn, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import { compilePlan, maskReadsColour, shownMaskById } from "@/core/plan/compilePlan";
import { planBefore } from "@/core/plan/editPasses";
import type { ForOutput } from "@/core/passes/sharpen/forOutput";
import type { Plan } from "@/core/plan/plan";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import type { CoderNoise } from "@/core/view/coderNoise";
import { BAND_PIXELS } from "../machine/bandMachine";
import { colouredFrom } from "../evaluate/runs";
import { NO_BASES, type Bases } from "../evaluate/bases";
import type { ShownMask } from "../masks/stageMasks";
import { gatherBases, needsWhole, type Cleaned, type Gathering } from "./gatherBases";
import { makeLevelFile, type LevelFile } from "./levelFile";
import { mendLevel } from "./mendLevel";
import type { RawLayout } from "./rawLevels";
import { BOARD_CELLS, cutJob, progressOf, STOPPED, workOnJob, type CutJob, type RenderJob } from "./renderJob";

export interface RenderOptions {
  depth: 8 | 16;
  /** Noise instead of a dither, for a coder that would take a dither away. */
  noise?: CoderNoise | undefined;
  /** A last sharpening for the size of the output. */
  sharpen?: ForOutput | undefined;
  /** The space in whose channels a print that carries colour is rendered; absent: in grey. */
  space?: OutputSpace | undefined;
  /** Long edge of the output in pixels; never enlarges. Absent: full size. */
  longEdge?: number | undefined;
  /** The built `renderThread`, with the built `gatherThread` beside it; absent: all in this thread, at once. */
  threadFile?: URL | undefined;
  threads?: number | undefined;
  bandPixels?: number | undefined;
  /** The picture at preview size, from which spatial passes gather surroundings; absent: made where a plan needs it. */
  overview?: RawLayout | undefined;
  /** Gives the picture with its colours cleaned, and that at preview size: asked where the plan reads them. */
  cleaned?: (() => Promise<Cleaned>) | undefined;
  /** The mask of a pass or a set instead of the print, by its id. */
  maskOf?: string | undefined;
  signal?: AbortSignal | undefined;
  /** Told the part done, 0–1, now and then. */
  onProgress?: ((part: number) => void) | undefined;
}

export interface RenderedPicture {
  size: Size;
  /** The space of its three channels; absent where it is grey. */
  space: OutputSpace | undefined;
  levels: Uint8Array | Uint16Array;
}

/** The same with its levels in a file, so that they take no memory. */
export interface RenderedFile extends Omit<RenderedPicture, "levels"> {
  levels: LevelFile;
}

const PROGRESS_EVERY_MS = 100;

/**
 * Renders a decoded picture through a plan into levels, of grey or, where it lays colour and a space is given for it, of three channels, on
 * as many threads as asked.
 * Neither their number nor the band size changes a level.
 *
 * Errors  CoreError `cancelled` when the signal is aborted; whatever a thread throws.
 */
export async function renderPicture(layout: RawLayout, plan: Plan, options: RenderOptions): Promise<RenderedPicture> {
  const { depth } = options;
  const memory = (size: Size, channels: number) => new SharedArrayBuffer(channels * size.width * size.height * (depth / 8));
  const { levels, ...rendered } = await renderInto(layout, plan, options, memory);
  return { ...rendered, levels: depth === 8 ? new Uint8Array(levels) : new Uint16Array(levels) };
}

/**
 * The same into a file. Errors: as above; RangeError for more than 4 GB.
 */
export async function renderToFile(layout: RawLayout, plan: Plan, options: RenderOptions, file: string): Promise<RenderedFile> {
  return renderInto(layout, plan, options, (size, channels) => makeLevelFile(file, size, channels, options.depth));
}

async function renderInto<Levels extends RenderJob["levels"]>(
  layout: RawLayout,
  plan: Plan,
  options: RenderOptions,
  makeLevels: (size: Size, channels: 1 | 3) => Levels,
): Promise<{ size: Size; space: OutputSpace | undefined; levels: Levels }> {
  const masked = options.maskOf === undefined ? undefined : shownMaskById(plan, options.maskOf);
  if (options.maskOf !== undefined && !masked) throw new CoreError("bad_plan", "the plan has no pass and no set whose mask was asked for");
  const shown: ShownMask | undefined = masked?.shown;
  const before = compilePlan(masked ? planBefore(plan, masked.at) : plan);
  const compiled = maskReadsColour(shown?.mask) ? { ...before, clean: plan.mix.clean } : before;
  // A mask is of the whole picture, so that it can be laid on it again.
  const space = !masked && colouredFrom(compiled) < Infinity ? options.space : undefined;
  const { size, cut } = outputOf(layout, masked ? WHOLE_FRAME : plan.frame, options.longEdge ?? Infinity, space !== undefined);
  const cleaned = compiled.clean > 0 ? await options.cleaned?.() : undefined;
  const levels = makeLevels(size, space ? 3 : 1);
  const job: RenderJob = {
    cut,
    layout,
    cleaned: cleaned?.full,
    mendings: { found: mendLevel(layout, compiled.spots), cleaned: cleaned ? mendLevel(cleaned.full, compiled.spots) : [] },
    plan: compiled,
    shown,
    bases: await basesFor({ layout, plan: compiled, shown, overview: options.overview, cleaned }, options.threadFile),
    output: { size, depth: options.depth, noise: options.noise, sharpen: options.sharpen, space },
    bandPixels: options.bandPixels ?? BAND_PIXELS,
    levels,
    board: new SharedArrayBuffer(4 * BOARD_CELLS),
  };
  const board = new Int32Array(job.board);
  const stop = () => void Atomics.store(board, STOPPED, 1);
  options.signal?.addEventListener("abort", stop);
  if (options.signal?.aborted) stop();
  const timer = setInterval(() => options.onProgress?.(progressOf(job)), PROGRESS_EVERY_MS);
  try {
    if (options.threadFile) await runThreads(job, options.threadFile, options.threads ?? 2);
    else workOnJob(job);
  } catch (error) {
    stop(); // the other threads need not go on
    throw error;
  } finally {
    clearInterval(timer);
    options.signal?.removeEventListener("abort", stop);
  }
  if (options.signal?.aborted) throw new CoreError("cancelled", "the render was cancelled");
  options.onProgress?.(1);
  return { size, space, levels };
}

/** The size of a print, and where it is cut out of its picture at what size. */
function outputOf(picture: Size, frame: Frame, longEdge: number, isColoured: boolean): { size: Size; cut: CutJob | undefined } {
  if (isWholeFrame(frame)) return { size: fitLongEdge(picture, longEdge), cut: undefined };
  const size = fitLongEdge(placingOf(frame, picture), longEdge);
  const pictureAt = pictureSizeAt(frame, picture, size);
  return { size, cut: cutJob(printOn(frame, picture, pictureAt, size)!, pictureAt, isColoured) };
}

async function basesFor(work: Gathering, threadFile: URL | undefined): Promise<Bases> {
  if (!needsWhole(work)) return NO_BASES;
  if (!threadFile) return gatherBases(work);
  let bases: Bases | undefined;
  await threadDone(new URL("./gatherThread.mjs", threadFile), work, (message) => (bases = message));
  return bases!;
}

async function runThreads(job: RenderJob, threadFile: URL, threads: number): Promise<void> {
  await Promise.all(Array.from({ length: Math.max(1, threads) }, () => threadDone(threadFile, job)));
}

function threadDone(threadFile: URL, workerData: RenderJob | Gathering, onMessage?: (bases: Bases) => void): Promise<void> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(threadFile, { workerData });
    if (onMessage) worker.once("message", onMessage);
    worker.once("error", reject);
    worker.once("exit", (code) => (code === 0 ? resolve() : reject(new CoreError("cut_off", `a render thread was ended (code ${code})`))));
  });
}
