import type { LevelRequest } from "@/contracts/api";
import type { Plan } from "@/core/plan/plan";
import { cleanedLevel, type PreparedPicture } from "@/contracts/preparedPicture";
import { planCompiler } from "@/core/plan/compilePlan";
import { printOn } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";
import { LevelFetcher, type LevelArea } from "../source/levelFetcher";
import { answering, wordsOf } from "../messages/asking";
import type {
  Frame,
  FromWorker,
  Glimpse,
  GlimpseOf,
  Place,
  Questions,
  RenderRequest,
  Screen,
  ToRenderer,
  ToWorker,
} from "../messages/messages";
import { Pace } from "../views/pace";
import type { RoughFrames } from "../views/roughFrames";
import { closeReach, looksAtWhole } from "../evaluate/runs";
import { PlanReceiver } from "../messages/wirePlan";
import { CloseParts, smallerPart, type ClosePart, type Wanted } from "./closeParts";
import { handMask, handStops, movedIn, screenOf, showingOf } from "./requests";
import { ShownViews, type ShownView } from "../views/shownViews";
import { spotSource } from "./spotSource";
import { startPool } from "./startPool";
import { SmallPictures } from "./smallPictures";
import { NO_BASES, type Bases } from "../evaluate/bases";
import { Source } from "../source/source";
import type { Stage } from "../stage/stage";
import { Views, type Purpose } from "../views/views";
import { ditherRow } from "@/core/view/dither";

// The page's worker: holds the decoded picture and its tones after each pass, and renders frames.
// One render at a time; of those that arrive meanwhile only the newest is kept.

const scope = self as unknown as DedicatedWorkerGlobalScope;
const HUE_BINS = 180;
const PREVIEW_AFTER_MS = 60;
const COUNT_AFTER_MS = 120;
/** While a hand moves, counts follow it this far apart: they take as long as a third of a frame, and the next one would wait. */
const COUNT_EVERY_MS = 60;
/** Cleaned colours that could not be fetched are asked for again with the first frame after so long. */
const CLEAN_AGAIN_MS = 5000;
/** A frame smaller than what is shown gives way to a whole one once the hand rests so long. */
const WHOLE_AFTER_MS = 100;

interface Open {
  picture: PreparedPicture;
  fetcher: LevelFetcher;
  /** Fetches the same levels with their colours cleaned. */
  cleaned: LevelFetcher;
  /** Whether the preview has its cleaned colours. */
  cleaning: "unasked" | "asked" | "there";
  preview: Views;
  /** It, as large as it is shown. */
  shown: ShownViews;
  /** The part of the print that is looked at closely. */
  close: CloseParts;
  /** The picture smaller, for all that is asked of it besides frames. */
  small: SmallPictures;
}

let open: Open | undefined;
let waiting: { number: number; request: RenderRequest } | undefined;
/** What was rendered last. */
let last: typeof waiting;
let isScheduled = false;
let spare: ArrayBuffer | undefined;
/** Where they are drawn. */
let frames: MessagePort | undefined;
let countedAt = -Infinity;
let countLater: ReturnType<typeof setTimeout> | undefined;
/** The preview beneath what is looked at closely. */
let beneathLater: ReturnType<typeof setTimeout> | undefined;
/** How large the picture is on which what a part needs of the whole is found. */
const basesPace = new Pace();
/** The whole frame after a rough one. */
let wholeLater: ReturnType<typeof setTimeout> | undefined;
/** The stage whose frame is in sight. */
let inSight: Stage | undefined;
const receiver = new PlanReceiver();
const compile = planCompiler();

const say = (message: FromWorker, transfer: Transferable[] = []) => scope.postMessage(message, transfer);

/** Resolved once there is a picture; what is asked before waits for it. */
let whenOpen: (found: Open) => void;
const opened = new Promise<Open>((resolve) => (whenOpen = resolve));

const answer = answering<Questions>(
  {
    open: async (question) => ({ answer: await openPicture(question) }),
    read: (place) => ({ answer: readPoint(place) }),
    glimpse: async (question) => {
      const plan = receiver.unpack(question.plan); // in the order in which plans were sent
      const glimpses = glimpsesOf(await opened, plan, question.of);
      return { answer: glimpses, transfer: glimpses.map(({ rgba }) => rgba.buffer) };
    },
    plane: async (question) => {
      const plan = receiver.unpack(question.plan);
      const found = (await opened).small.plane(plan, question.of);
      return { answer: found, transfer: found ? [found.plane.buffer] : [] };
    },
    accents: async (question) => {
      const plan = receiver.unpack(question.plan);
      return { answer: (await opened).small.accents(plan, question.passId, question.scale) };
    },
    colourAt: async ({ plan: packed, place: { x, y }, reach }) => {
      const plan = receiver.unpack(packed);
      const stage = (await opened).preview.stage("glance");
      const { width, height } = stage.size;
      const [column, row] = [Math.min(Math.floor(x * width), width - 1), Math.min(Math.floor(y * height), height - 1)];
      return { answer: stage.colourAt(compiledFor(stage, plan), column, row, reach) };
    },
    twins: async (question) => {
      const plan = receiver.unpack(question.plan);
      return { answer: (await opened).small.twins(plan) };
    },
    spotSource: async ({ spot, ...besides }) => {
      const { picture, fetcher } = await opened;
      return { answer: await spotSource(picture, fetcher, spot, besides, new AbortController().signal) };
    },
    mixes: async () => ({ answer: (await opened).small.mixes() }),
  },
  say,
);

scope.onmessage = ({ data }: MessageEvent<ToWorker>) => {
  switch (data.type) {
    case "ask":
      void answer(data);
      break;
    case "render":
      waiting = { number: data.number, request: { ...data.request, plan: receiver.unpack(data.request.plan) } };
      schedule();
      break;
    case "frames":
      frames = data.port;
      frames.onmessage = ({ data: { buffer } }: MessageEvent<ToRenderer>) => (spare = buffer);
      break;
    case "ping":
      say({ type: "pong" });
      break;
  }
};

function glimpsesOf({ small, preview, picture }: Open, plan: Plan, of: GlimpseOf): Glimpse[] {
  if (of !== "sheet") return small.glimpses(plan, of);
  const print = printOn(plan.frame, picture.levels[0]!, preview.size);
  const rgba = preview
    .stage("glance")
    .render(preview.source.asFarAsGiven(compile(plan)), undefined, showingOf({ kind: "picture" }), { print });
  return [{ ...sizeOf(print ?? preview.size), rgba }];
}

async function openPicture({ pictureId, picture, origin, cores }: Questions["open"]["question"]): Promise<Questions["open"]["answer"]> {
  const fetcher = new LevelFetcher(picture.levels, (area, of, signal) => fetchArea(origin, pictureId, { ...area, of }, signal));
  const cleaned = new LevelFetcher(picture.levels.map(cleanedLevel), (area, of, signal) =>
    fetchArea(origin, pictureId, { ...area, of: of === "grain" ? "clean-grain" : "clean" }, signal),
  );
  const { width, height, space } = picture.levels.at(-1)!;
  const reading = fetcher.read(previewArea(picture), new AbortController().signal);
  const runner = startPool(cores);
  ditherRow(0); // takes longer to make than a frame: while the picture is on its way
  const { levels, grain } = await reading;
  const preview = new Views(Source.fromLevels(levels, { width, height }, space, { grain, runner }));
  const small = new SmallPictures(preview.source, picture.levels[0]!);
  const close = new CloseParts(picture, fetcher, cleaned, renderAgain, sayFailed, runner);
  const shown = new ShownViews(preview, picture.levels[0]!);
  open = { picture, fetcher, cleaned, cleaning: "unasked", preview, shown, close, small };
  whenOpen(open);
  schedule();
  return { hueShares: preview.source.hueShares(HUE_BINS) };
}

function previewArea({ levels }: PreparedPicture): LevelArea {
  const { width, height } = levels.at(-1)!;
  return { level: levels.length - 1, x: 0, y: 0, width, height };
}

/** Fetches the preview's cleaned colours, once a plan asks for them: until they are there it is mixed from those found. */
async function fetchCleaned(found: Open): Promise<void> {
  if (found.cleaning !== "unasked") return;
  found.cleaning = "asked";
  say({ type: "cleaning", state: "under way" });
  try {
    const { levels, grain } = await found.cleaned.read(previewArea(found.picture), new AbortController().signal);
    const { source } = found.preview;
    source.giveCleaned({ levels, space: cleanedLevel(found.picture.levels.at(-1)!).space, grain });
    found.cleaning = "there";
    found.shown.renew();
    found.small = new SmallPictures(source, found.picture.levels[0]!);
    say({ type: "cleaning", state: "there" });
    renderAgain();
  } catch (error) {
    say({ type: "cleaning", state: "failed" });
    sayFailed(error);
    setTimeout(() => (found.cleaning = "unasked"), CLEAN_AGAIN_MS);
  }
}

async function fetchArea(origin: string, pictureId: string, asked: LevelRequest, signal: AbortSignal): Promise<ArrayBuffer> {
  const query = new URLSearchParams(Object.entries(asked).map(([key, value]) => [key, String(value)]));
  const response = await fetch(`${origin}/api/pictures/${pictureId}/levels?${query}`, { signal });
  if (!response.ok) {
    const problem = (await response.json().catch(() => ({}))) as { title?: string };
    throw new Error(problem.title ?? "the picture could not be fetched");
  }
  return response.arrayBuffer();
}

// A message to ourselves lets those that are already there in first, so that only the newest render is done.
const turn = new MessageChannel();
turn.port1.onmessage = () => {
  isScheduled = false;
  try {
    renderWaiting();
  } catch (error) {
    forgetStages();
    say({ type: "failed", message: wordsOf(error).message });
  }
};

/** What a stage was doing when something was thrown is half done: the next frame begins with fresh ones. */
function forgetStages(): void {
  const { shown, close } = open!;
  shown.forget();
  const part = close.there;
  part?.whole?.forget();
  part?.views.forget();
  part?.smaller?.views.forget();
  inSight = undefined;
}

function schedule(): void {
  if (isScheduled || !waiting || !open) return;
  isScheduled = true;
  turn.port2.postMessage(undefined);
}

function renderWaiting(): void {
  if (!open || !waiting) return;
  const { number, request } = waiting;
  last = waiting;
  waiting = undefined;
  if (request.plan.mix.clean > 0) void fetchCleaned(open);
  const wanted = wantedOf(request);
  const shown = wanted && open.close.at(wanted);
  if (!wanted) open.close.rest();
  clearTimeout(wholeLater);
  clearTimeout(beneathLater);
  clearTimeout(countLater);
  if (!shown) return renderOn(wholeTarget(open.shown, "preview"), number, request, true);
  // What is looked at comes first; the preview beneath, with the histograms, follows when the hand rests.
  renderOn(shown.whole ? wholeTarget(shown.whole, shown.of.area) : partTarget(shown), number, request, true);
  beneathLater = setTimeout(() => renderBeneath(number, request), shown.whole ? 2 * WHOLE_AFTER_MS : PREVIEW_AFTER_MS);
}

/** Something a frame shows. */
interface Target {
  area: Screen["area"];
  rough: RoughFrames;
  view(request: RenderRequest): ShownView;
  /** The same with edges so many times as long. */
  smaller(request: RenderRequest, scale: number): ShownView;
  /** What it needs of the whole picture; absent where it is that. */
  bases?(request: RenderRequest, scale: number): Bases;
}

const wholeTarget = (shown: ShownViews, area: Screen["area"]): Target => ({
  area,
  rough: shown.rough,
  view: (request) => shown.view(request.shownFrame, request.shownSize, purposeOf(request)),
  smaller: ({ shownFrame, shownSize }, scale) => shown.smaller(shownFrame, shownSize, scale),
});

const partTarget = (part: ClosePart): Target => ({
  area: part.of.area,
  rough: part.rough,
  view: (request) => ({ stage: part.views.stage(purposeOf(request)), print: part.print }),
  smaller: ({ plan }, scale) => smallerPart(part, scale, compile(plan)),
  bases: basesFor,
});

/** Renders a frame, roughly where the hand moves and would have to wait for more: smaller, and with what it needs of the whole picture found on a smaller one. */
function renderOn(target: Target, number: number, request: RenderRequest, isMoving: boolean): void {
  const { area, rough } = target;
  const full = target.view(request);
  const begin = performance.now();
  const size = sizeOf(full.print ?? full.stage.size);
  const doing = movedIn(request, compile(request.plan));
  const basesScale = isMoving && doing && target.bases ? basesPace.scaleFor(doing) : 1;
  const bases = target.bases?.(request, basesScale);
  const basesMs = performance.now() - begin;
  if (doing && bases) basesPace.took(basesScale, basesMs);
  const scale = isMoving && doing ? rough.scaleFor(doing, size) : 1;
  const view = scale < 1 ? target.smaller(request, scale) : full;
  const rendered = pixelsOf(view, request, scale < 1 ? rough.small : spare, bases);
  const renderedMs = performance.now() - begin - basesMs;
  const rgba = scale < 1 ? rough.complete(rendered, spare) : rendered;
  spare = undefined;
  const keptScale = doing && rough.took(scale, renderedMs, doing);
  const kept = keptScale && rgba.slice(); // what is shown goes away to be drawn
  const worst = Math.min(scale, basesScale);
  show({ number, screen: screenOf(area, request), ...size, rgba, scale: worst, tookMs: performance.now() - begin });
  if (request.isPeek) return;
  inSight = view.stage;
  if (!target.bases) count(view.stage, request);
  if (worst < 1) wholeLater = setTimeout(() => renderOn(target, number, request, false), WHOLE_AFTER_MS);
  if (!doing || !keptScale || !kept) return;
  // What the frame shows beside a smaller one of the same plan is kept.
  const smaller = target.smaller(request, keptScale);
  const small = { ...sizeOf(smaller.print ?? smaller.stage.size), rgba: pixelsOf(smaller, request, rough.small, bases) };
  rough.keep(doing, keptScale, { ...size, rgba: kept }, small);
}

/** Renders the preview beneath what is looked at closely. */
function renderBeneath(number: number, request: RenderRequest): void {
  const begin = performance.now();
  const { stage, print } = viewOf(request);
  const rgba = pixelsOf({ stage, print }, request, undefined);
  show({ number, screen: screenOf("preview", request), ...sizeOf(print ?? stage.size), rgba, scale: 1, tookMs: performance.now() - begin });
  if (!request.isPeek) count(stage, request);
}

function pixelsOf({ stage, print }: ShownView, request: RenderRequest, buffer: ArrayBuffer | undefined, bases?: Bases) {
  const showing = { ...showingOf(request.look), screens: request.screens, mask: handMask(request), exposed: handStops(request) };
  return stage.render(compiledFor(stage, request.plan), request.hand, showing, { buffer, bases, print });
}

/** Sends a frame to be drawn. */
function show(frame: Frame): void {
  frames?.postMessage(frame, [frame.rgba.buffer]);
}

/** Counting comes after the frame is on its way: first on the pixels shown, exactly when the hand rests. Where colour is shown no tones were made. */
function count(stage: Stage, request: RenderRequest): void {
  if (request.look.kind !== "colour" && performance.now() - countedAt >= COUNT_EVERY_MS) measure(stage, request);
  countLater = setTimeout(() => countExactly(request), COUNT_AFTER_MS);
}

/** The surroundings a part of the picture needs, where the plan has steps that look at them. */
function basesFor(request: RenderRequest, scale: number): Bases {
  const { plan, hand, look } = request;
  // A pass that changes nothing yet has a mask to be seen all the same.
  const shown = look.kind === "mask" ? handMask(request) : undefined;
  if (!looksAtWhole(compile(plan)) && !shown?.mask) return NO_BASES;
  const whole = (scale < 1 ? open!.shown.smaller(request.shownFrame, request.shownSize, scale) : viewOf(request)).stage;
  const compiled = compiledFor(whole, plan);
  whole.update(compiled, hand);
  return shown ? whole.basesToShow(shown, hand?.first ?? 0) : whole.bases();
}

function measure(stage: Stage, request: RenderRequest, acting?: number | null): void {
  const histograms = stage.histograms();
  if (!histograms) return;
  countedAt = performance.now();
  say({ type: "measured", histograms, pins: request.pins.flatMap((pin) => readStage(stage, pin) ?? []), acting });
}

/** The part of the print the pass in hand acts on. */
function actingShare(stage: Stage, request: RenderRequest): number | null {
  const mask = handMask(request);
  if (!mask.mask && !mask.reach) return null;
  return stage.meanInPrint(stage.shownMask(mask));
}

function countExactly(request: RenderRequest): void {
  const { stage: shown, print } = viewOf(request);
  if (request.look.kind === "colour") shown.update(compiledFor(shown, request.plan), request.hand, { print });
  const preview = open!.preview.stage("print");
  preview.update(compiledFor(preview, request.plan), request.hand, {
    print: printOn(request.plan.frame, open!.picture.levels[0]!, preview.size),
  });
  measure(preview, request, actingShare(preview, request));
}

const compiledFor = (stage: Stage, plan: Plan) => stage.source.asFarAsGiven(compile(plan));

const purposeOf = ({ isPeek }: RenderRequest): Purpose => (isPeek ? "glance" : "print");

const viewOf = (request: RenderRequest): ShownView => open!.shown.view(request.shownFrame, request.shownSize, purposeOf(request));

/** What a request wants to be seen closely, if anything. */
function wantedOf({ detail, shownFrame, plan }: RenderRequest): Wanted | undefined {
  if (!detail) return undefined;
  const { picture, cleaning } = open!;
  const { width, height } = picture.levels[detail.level]!;
  const compiled = compile(plan);
  const reach = closeReach(compiled, Math.max(width, height));
  return { area: detail, frame: shownFrame, spots: plan.spots, isCleaned: cleaning === "there" && compiled.clean > 0, reach };
}

/** Renders what is wanted by now, which may be another look or plan than when something was asked for. */
function renderAgain(): void {
  waiting ??= last;
  schedule();
}

function sayFailed(error: unknown): void {
  if ((error as Error).name !== "AbortError") say({ type: "failed", message: wordsOf(error).message });
}

/** Reads what is in sight, or the preview where that does not lie there. */
function readPoint(at: Place) {
  if (!open) return undefined;
  return (inSight && readStage(inSight, at)) ?? readStage(open.preview.stage("print"), at);
}

/** Reads a stage of the picture or of a part; undefined outside that. */
function readStage(stage: Stage, { x, y }: Place) {
  const { place, size } = stage.source;
  const { width, height } = place.whole;
  const [column, row] = [Math.floor(Math.min(x * width, width - 0.5) - place.x), Math.floor(Math.min(y * height, height - 0.5) - place.y)];
  const isInside = column >= 0 && row >= 0 && column < size.width && row < size.height;
  return isInside ? stage.readPoint(column, row) : undefined;
}

const sizeOf = ({ width, height }: Size): Size => ({ width, height });
