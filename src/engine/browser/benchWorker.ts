import type { LevelRequest } from "@/contracts/api";
import type { Plan } from "@/core/plan/plan";
import { cleanedLevel, type PreparedPicture } from "@/contracts/preparedPicture";
import { planCompiler, shownMaskById, shownMaskOf } from "@/core/plan/compilePlan";
import { frameKey, isWholeFrame, pictureSizeAt, printOn, type Placing } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";
import { encodedLight, lookShare, lookTable, type Look } from "@/core/view/toneTables";
import { LevelFetcher } from "../levelFetcher";
import { answering, wordsOf } from "../asking";
import type {
  BenchLook,
  Frame,
  FromWorker,
  Glimpse,
  GlimpseOf,
  LevelArea,
  Place,
  Questions,
  RenderRequest,
  Screen,
  ToRenderer,
  ToWorker,
} from "../messages";
import { closeReach, looksAtWhole } from "../runs";
import { PlanReceiver } from "../wirePlan";
import { CloseParts, type Wanted } from "./closeParts";
import { spotSource } from "./spotSource";
import { startCrew } from "./startCrew";
import { SmallPictures, stopsOf } from "./smallPictures";
import { NO_BASES, type Bases } from "../applyRun";
import { Source } from "../source";
import type { Stage } from "../stage";
import { Views, type Purpose } from "../views";
import { ditherRow } from "@/core/view/dither";
import type { Showing, StopsOf } from "../stageTypes";
import type { ShownMask } from "../stageMasks";

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
/** Shown smaller than this part of the preview, the picture gets a stage of just its size: less to compute, no resampling by the browser. */
const FITTED_BELOW = 0.9;

interface Open {
  picture: PreparedPicture;
  fetcher: LevelFetcher;
  /** Fetches the same levels with their colours cleaned. */
  cleaned: LevelFetcher;
  /** Whether the preview has its cleaned colours. */
  cleaning: "unasked" | "asked" | "there";
  preview: Views;
  /** The preview brought down to just the size it is shown at. */
  fitted: Views | undefined;
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
let previewLater: ReturnType<typeof setTimeout> | undefined;
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
  const crew = startCrew(cores);
  ditherRow(0); // takes longer to make than a frame: while the picture is on its way
  const { levels, grain } = await reading;
  const preview = new Views(Source.fromLevels(levels, { width, height }, space, { grain, crew }));
  const small = new SmallPictures(preview.source, picture.levels[0]!);
  const close = new CloseParts(picture, fetcher, cleaned, renderAgain, sayFailed, crew);
  open = { picture, fetcher, cleaned, cleaning: "unasked", preview, fitted: undefined, close, small };
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
    found.fitted = undefined;
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
  const { preview, fitted, close } = open!;
  for (const views of [preview, fitted, close.there?.views]) views?.forget();
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
  // What is looked at comes first; the preview beneath, with the histograms, follows when the hand rests.
  clearTimeout(previewLater);
  const renderPreview = () => {
    const stage = fittedStage(request);
    renderStage(stage, "preview", number, request, { print: printOnScreen(stage, request) });
  };
  if (!shown) return renderPreview();
  renderStage(shown.views.stage(purposeOf(request)), shown.of.area, number, request, { bases: basesFor(request), print: shown.print });
  previewLater = setTimeout(renderPreview, PREVIEW_AFTER_MS);
}

/** The surroundings a part of the picture needs, where the plan has steps that look at them. */
function basesFor(request: RenderRequest): Bases {
  const { plan, hand, look } = request;
  // A pass that changes nothing yet has a mask to be seen all the same.
  const shown = look.kind === "mask" ? handMask(request) : undefined;
  const whole = fittedStage(request);
  const compiled = compiledFor(whole, plan);
  if (!looksAtWhole(compiled) && !shown?.mask) return NO_BASES;
  whole.update(compiled, hand);
  return shown ? whole.basesToShow(shown, hand?.first ?? 0) : whole.bases();
}

interface Given {
  bases?: Bases;
  print: Placing | undefined;
}

function renderStage(stage: Stage, area: Screen["area"], number: number, request: RenderRequest, { bases, print }: Given): void {
  const begin = performance.now();
  const showing = { ...showingOf(request.look), screens: request.screens, mask: handMask(request), exposed: handStops(request) };
  const rgba = stage.render(compiledFor(stage, request.plan), request.hand, showing, { buffer: spare, bases, print });
  spare = undefined;
  const frame: Frame = { number, screen: screenOf(area, request), ...sizeOf(print ?? stage.size), rgba, tookMs: performance.now() - begin };
  frames?.postMessage(frame, [rgba.buffer]);
  clearTimeout(countLater);
  if (area !== "preview" || request.isPeek) return;
  // Counting comes after the frame is on its way: first on the pixels shown, exactly when the hand rests. Where colour is shown no tones were made.
  if (request.look.kind !== "colour" && performance.now() - countedAt >= COUNT_EVERY_MS) measure(stage, request);
  countLater = setTimeout(() => countExactly(request), COUNT_AFTER_MS);
}

function screenOf(area: Screen["area"], { shownFrame }: RenderRequest): Screen {
  return { name: JSON.stringify([area, frameKey(shownFrame)]), area, isWhole: isWholeFrame(shownFrame) };
}

function measure(stage: Stage, request: RenderRequest, acting?: number | null): void {
  const histograms = stage.histograms();
  if (!histograms) return;
  countedAt = performance.now();
  say({ type: "measured", histograms, pins: request.pins.flatMap((pin) => readStage(stage, pin) ?? []), acting });
}

const EVERYWHERE: ShownMask = { mask: undefined, reach: undefined, beforeMix: false };

/** The mask of the pass or set in hand; of neither it is everywhere. */
function handMask({ plan, hand }: RenderRequest): ShownMask {
  if (hand?.set) return shownMaskById(plan, hand.set)?.shown ?? EVERYWHERE;
  const pass = hand && hand.end - hand.first === 1 ? plan.passes[hand.first] : undefined;
  return pass ? shownMaskOf(plan, pass) : EVERYWHERE;
}

/** The pass in hand, where it gives stops to places. */
function handStops({ plan, hand }: RenderRequest): StopsOf | undefined {
  return hand && hand.end - hand.first === 1 ? stopsOf(plan, plan.passes[hand.first]) : undefined;
}

/** The part of the print the pass in hand acts on. */
function actingShare(stage: Stage, request: RenderRequest): number | null {
  const mask = handMask(request);
  if (!mask.mask && !mask.reach) return null;
  return stage.meanInPrint(stage.shownMask(mask));
}

function countExactly(request: RenderRequest): void {
  const shown = fittedStage(request);
  if (request.look.kind === "colour")
    shown.update(compiledFor(shown, request.plan), request.hand, { print: printOnScreen(shown, request) });
  const preview = open!.preview.stage("print");
  preview.update(compiledFor(preview, request.plan), request.hand, {
    print: printOn(request.plan.frame, open!.picture.levels[0]!, preview.size),
  });
  measure(preview, request, actingShare(preview, request));
}

const compiledFor = (stage: Stage, plan: Plan) => stage.source.asFarAsGiven(compile(plan));

const purposeOf = ({ isPeek }: RenderRequest): Purpose => (isPeek ? "glance" : "print");

/** The stage whose pixels are those of the screen, unless the picture is shown about as large as the preview or larger. */
function fittedStage(request: RenderRequest): Stage {
  const { shownFrame, shownSize } = request;
  return fittedViews(pictureSizeAt(shownFrame, open!.picture.levels[0]!, shownSize)).stage(purposeOf(request));
}

/** Where the print lies on a stage of the whole picture: at the size of the screen where the stage was made for it. */
function printOnScreen(stage: Stage, { shownFrame, shownSize }: RenderRequest): Placing | undefined {
  const { preview, picture } = open!;
  return printOn(shownFrame, picture.levels[0]!, stage.size, stage.source === preview.source ? undefined : shownSize);
}

function fittedViews({ width, height }: Size): Views {
  const { preview, fitted } = open!;
  if (width > FITTED_BELOW * preview.size.width) return preview;
  if (fitted?.size.width === width && fitted.size.height === height) return fitted;
  return (open!.fitted = new Views(preview.source.reducedTo({ width, height })));
}

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

function readPoint({ x, y }: Place) {
  if (!open) return undefined;
  const { preview, fitted, close } = open;
  if (close.there) {
    const { place, size } = close.there.views.source;
    const column = Math.floor(x * place.whole.width) - place.x;
    const row = Math.floor(y * place.whole.height) - place.y;
    const inside = column >= 0 && row >= 0 && column < size.width && row < size.height;
    const reading = inside ? close.there.views.stage("print").readPoint(column, row) : undefined;
    if (reading) return reading;
  }
  return readStage((fitted ?? preview).stage("print"), { x, y });
}

function readStage(stage: Stage, { x, y }: Place) {
  const { width, height } = stage.size;
  return stage.readPoint(Math.min(Math.floor(x * width), width - 1), Math.min(Math.floor(y * height), height - 1));
}

const showings = new Map<string, Showing>();

/** Looks that show something else than the print. */
const SHOWN_BY: Partial<Record<BenchLook["kind"], Showing["of"]>> = {
  colour: "colour",
  change: "change",
  mask: "mask",
  exposure: "stops",
  dust: "dust",
};
const isLook = (look: BenchLook): look is Look => look.kind !== "map" && !SHOWN_BY[look.kind];

function showingOf(look: BenchLook): Showing {
  const key = JSON.stringify(look);
  const known = showings.get(key);
  if (known) return known;
  const of = SHOWN_BY[look.kind] ?? "print";
  const table = look.kind === "colour" ? encodedLight() : lookTable(isLook(look) ? look : { kind: "picture" });
  const showing = {
    table,
    dithered: look.kind !== "stepped" && look.kind !== "colour",
    of,
    screens: false,
    coloured: isLook(look) ? "display-p3" : undefined,
    colourShare: isLook(look) ? lookShare(look) : undefined,
  } as const;
  showings.set(key, showing);
  return showing;
}

const sizeOf = ({ width, height }: Size): Size => ({ width, height });
