import type { Vector3 } from "@/core/colour/matrix3";
import { printOn } from "@/core/frame/frame";
import { planCompiler, type CompiledPlan } from "@/core/plan/compilePlan";
import type { Plan } from "@/core/plan/plan";
import type { Size } from "@/core/spatial/areaReduce";
import { NO_BASES, type Bases } from "../evaluate/bases";
import { closeReach, isPointwise, looksAtWhole } from "../evaluate/runs";
import { wordsOf } from "../messages/asking";
import type { Cleaning, Frame, FromWorker, Glimpse, GlimpseOf, Place, RenderRequest, Screen } from "../messages/messages";
import type { TaskRunner } from "../pool/taskRunner";
import type { Stage } from "../stage/stage";
import type { PointReading } from "../stage/stageTypes";
import { CloseParts, smallerPart, type ClosePart, type Wanted } from "./closeParts";
import type { Looking, OpenPicture } from "./openPicture";
import { Pace } from "./pace";
import { activeMask, activeStops, movedIn, screenOf, showingOf } from "./requests";
import type { RoughFrames } from "./roughFrames";
import { ShownViews, type ShownView } from "./shownViews";
import { Views, type Purpose } from "./views";

const BENEATH_AFTER_MS = 60;
const COUNT_AFTER_MS = 120;
/** While a hand moves, counts follow it this far apart: they take as long as a frame, and the next one would wait. */
const COUNT_EVERY_MS = 60;
/** A frame of a drag, or one smaller than what is shown, gives way to a whole one once the hand rests so long. */
const WHOLE_AFTER_MS = 100;

/** Where what a view makes goes. */
export interface ViewHost {
  say(message: FromWorker): void;
  /** Sends a frame to be drawn. */
  show(frame: Frame): void;
  /** Has `renderWaiting` called once what came in the meantime is in. */
  schedule(): void;
  runner: TaskRunner;
}

/** What is wanted to be seen: a request, and its plan compiled. */
interface Wish {
  number: number;
  request: RenderRequest;
  compiled: CompiledPlan;
}

/** Something a frame shows. */
interface Target {
  area: Screen["area"];
  rough: RoughFrames;
  view(wish: Wish): ShownView;
  /** The same with edges so many times as long. */
  smaller(wish: Wish, scale: number): ShownView;
  /** What it needs of the whole picture; absent where it is that. */
  bases?(wish: Wish, scale: number): Bases;
}

/**
 * One way of looking at a picture: with its plan, its size, the part that is seen closely, and its own memory of what it rendered. Of
 * requests that arrive meanwhile only the newest is kept.
 */
export class ViewRenderer implements Looking {
  readonly #compile = planCompiler();
  /** All of the picture as it was fetched, and as large as it is shown. */
  readonly #preview: Views;
  readonly #shown: ShownViews;
  /** The part of the print that is looked at closely. */
  readonly #close: CloseParts;
  /** How large the picture is on which what a part needs of the whole is found. */
  readonly #basesPace = new Pace();
  #waiting: { number: number; request: RenderRequest } | undefined;
  /** What was rendered last. */
  #last: { number: number; request: RenderRequest } | undefined;
  /** What the hand moved in it. */
  #doing: string | undefined;
  #spare: ArrayBuffer | undefined;
  #countedAt = -Infinity;
  #countLater: ReturnType<typeof setTimeout> | undefined;
  /** The preview beneath what is looked at closely. */
  #beneathLater: ReturnType<typeof setTimeout> | undefined;
  /** The whole frame after a rough one. */
  #wholeLater: ReturnType<typeof setTimeout> | undefined;
  /** The stage whose frame is in sight. */
  #inSight: Stage | undefined;

  constructor(
    readonly id: number,
    readonly open: OpenPicture,
    readonly host: ViewHost,
  ) {
    const { picture, fetcher, cleaned, preview } = open;
    this.#preview = new Views(preview);
    this.#shown = new ShownViews(this.#preview, picture.levels[0]!);
    const again = () => this.#renderAgain();
    this.#close = new CloseParts(picture, fetcher, cleaned, again, (error) => this.#sayFailed(error), host.runner);
    open.looking.add(this);
  }

  get isWaiting(): boolean {
    return this.#waiting !== undefined;
  }

  request(number: number, request: RenderRequest): void {
    this.#waiting = { number, request };
    this.host.schedule();
  }

  /** A buffer that comes back once its frame is drawn. */
  recycle(buffer: ArrayBuffer): void {
    this.#spare = buffer;
  }

  close(): void {
    this.#rest();
    this.#close.rest();
    this.#waiting = undefined;
    this.#last = undefined;
    this.open.looking.delete(this);
  }

  onCleaning(state: Cleaning, error?: unknown): void {
    this.host.say({ type: "cleaning", view: this.id, state });
    if (error !== undefined) return this.#sayFailed(error);
    if (state !== "there") return;
    this.#shown.renew();
    this.#renderAgain();
  }

  /** Renders what waits, if anything does. */
  renderWaiting(): void {
    const asked = this.#waiting;
    if (!asked) return;
    this.#last = asked;
    this.#waiting = undefined;
    try {
      this.#render({ ...asked, compiled: this.#compile(asked.request.plan) });
    } catch (error) {
      this.#forgetStages();
      this.host.say({ type: "failed", view: this.id, message: wordsOf(error).message });
    }
  }

  /** Reads what is in sight, or the preview where that does not lie there. */
  read(at: Place): PointReading | undefined {
    return (this.#inSight && readStage(this.#inSight, at)) ?? readStage(this.#preview.stage("print"), at);
  }

  /** The print of a plan as large as a sheet, or smaller. */
  glimpses(plan: Plan, of: GlimpseOf): Glimpse[] {
    if (of !== "sheet") return this.open.small.glimpses(plan, of);
    const print = printOn(plan.frame, this.open.picture.levels[0]!, this.#preview.size);
    const stage = this.#preview.stage("glance");
    const rgba = stage.render(compiledFor(stage, this.#compile(plan)), undefined, showingOf({ kind: "picture" }), { print });
    return [{ ...sizeOf(print ?? this.#preview.size), rgba }];
  }

  /** The colour that leaves a plan's passes before the mix, the mean so many pixels to either side of a place. */
  colourAt(plan: Plan, { x, y }: Place, reach: number): Vector3 {
    const stage = this.#preview.stage("glance");
    const { width, height } = stage.size;
    const [column, row] = [Math.min(Math.floor(x * width), width - 1), Math.min(Math.floor(y * height), height - 1)];
    return stage.colourAt(compiledFor(stage, this.#compile(plan)), column, row, reach);
  }

  #rest(): void {
    for (const timer of [this.#wholeLater, this.#beneathLater, this.#countLater]) clearTimeout(timer);
  }

  /** What a stage was doing when something was thrown is half done: the next frame begins with fresh ones. */
  #forgetStages(): void {
    this.#shown.forget();
    const part = this.#close.there;
    part?.whole?.forget();
    part?.views.forget();
    part?.smaller?.views.forget();
    this.#inSight = undefined;
  }

  #render(wish: Wish): void {
    const { request, compiled } = wish;
    if (request.plan.mix.clean > 0) void this.open.fetchCleaned();
    const wanted = this.#wantedOf(request, compiled);
    const part = wanted && this.#close.at(wanted);
    if (!wanted) this.#close.rest();
    this.#rest();
    if (!part) return this.#renderOn(this.#wholeTarget(this.#shown, "preview"), wish, true);
    // What is looked at comes first; the preview beneath, with the histograms, follows when the hand rests.
    this.#renderOn(part.whole ? this.#wholeTarget(part.whole, part.of.area) : this.#partTarget(part), wish, true);
    this.#beneathLater = setTimeout(() => this.#renderBeneath(wish), part.whole ? 2 * WHOLE_AFTER_MS : BENEATH_AFTER_MS);
  }

  #wholeTarget(shown: ShownViews, area: Screen["area"]): Target {
    return {
      area,
      rough: shown.rough,
      view: ({ request }) => shown.view(request.shownFrame, request.shownSize, purposeOf(request)),
      smaller: ({ request: { shownFrame, shownSize } }, scale) => shown.smaller(shownFrame, shownSize, scale),
    };
  }

  #partTarget(part: ClosePart): Target {
    return {
      area: part.of.area,
      rough: part.rough,
      view: ({ request }) => ({ stage: part.views.stage(purposeOf(request)), print: part.print }),
      smaller: ({ compiled }, scale) => smallerPart(part, scale, compiled),
      bases: (wish, scale) => this.#basesFor(wish, scale),
    };
  }

  /**
   * Renders a frame, roughly where the hand moves and would have to wait for more: smaller, and with what it needs of the whole picture
   * found on a smaller one.
   */
  #renderOn(target: Target, wish: Wish, isMoving: boolean): void {
    const { area, rough } = target;
    const { number, request, compiled } = wish;
    const full = target.view(wish);
    const begin = performance.now();
    const size = sizeOf(full.print ?? full.stage.size);
    const doing = movedIn(request, compiled);
    const isDragged = isMoving && doing !== undefined && doing === this.#doing;
    this.#doing = doing;
    const basesScale = isMoving && doing && target.bases ? this.#basesPace.scaleFor(doing) : 1;
    const bases = target.bases?.(wish, basesScale);
    const basesMs = performance.now() - begin;
    if (doing && bases) this.#basesPace.took(basesScale, basesMs);
    const scale = isMoving && doing ? rough.scaleFor(doing, size, isPointwise(compiled, request.active)) : 1;
    const view = scale < 1 ? target.smaller(wish, scale) : full;
    const rendered = pixelsOf(view, wish, scale < 1 ? rough.small : this.#spare, { bases, isMoving: isDragged });
    const renderedMs = performance.now() - begin - basesMs;
    const rgba = scale < 1 ? rough.complete(rendered, this.#spare) : rendered;
    this.#spare = undefined;
    const keptScale = doing && rough.took(scale, renderedMs, doing);
    const kept = keptScale && rgba.slice(); // what is shown goes away to be drawn
    const worst = Math.min(scale, basesScale);
    const screen = screenOf(area, request);
    this.host.show({ view: this.id, number, screen, ...size, rgba, scale: worst, tookMs: performance.now() - begin });
    if (request.isPeek) return;
    this.#inSight = view.stage;
    if (!target.bases) this.#count(view.stage, wish);
    // What was read through other tables may be a level off: what stays on the screen is exact.
    if (worst < 1 || isDragged) this.#wholeLater = setTimeout(() => this.#renderOn(target, wish, false), WHOLE_AFTER_MS);
    if (!doing || !keptScale || !kept) return;
    // What the frame shows beside a smaller one of the same plan is kept.
    const smaller = target.smaller(wish, keptScale);
    const small = { ...sizeOf(smaller.print ?? smaller.stage.size), rgba: pixelsOf(smaller, wish, rough.small, { bases }) };
    rough.keep(doing, keptScale, { ...size, rgba: kept }, small);
  }

  /** Renders the preview beneath what is looked at closely. */
  #renderBeneath(wish: Wish): void {
    const { number, request } = wish;
    const begin = performance.now();
    const { stage, print } = this.#viewOf(request);
    const rgba = pixelsOf({ stage, print }, wish, undefined);
    const screen = screenOf("preview", request);
    const tookMs = performance.now() - begin;
    this.host.show({ view: this.id, number, screen, ...sizeOf(print ?? stage.size), rgba, scale: 1, tookMs });
    if (!request.isPeek) this.#count(stage, wish);
  }

  /**
   * Counting comes after the frame is on its way: first on the pixels shown, exactly when the hand rests. Where colour is shown no tones
   * were made.
   */
  #count(stage: Stage, wish: Wish): void {
    const isDue = performance.now() - this.#countedAt >= COUNT_EVERY_MS;
    if (wish.request.look.kind !== "colour" && isDue) this.#measure(stage, wish.request);
    this.#countLater = setTimeout(() => this.#countExactly(wish), COUNT_AFTER_MS);
  }

  /** The surroundings a part of the picture needs, where the plan has steps that look at them. */
  #basesFor(wish: Wish, scale: number): Bases {
    const { request, compiled } = wish;
    const { active, look, shownFrame, shownSize } = request;
    // A pass that changes nothing yet has a mask to be seen all the same.
    const shown = look.kind === "mask" ? activeMask(request) : undefined;
    if (!looksAtWhole(compiled) && !shown?.mask) return NO_BASES;
    const { stage } = scale < 1 ? this.#shown.smaller(shownFrame, shownSize, scale) : this.#viewOf(request);
    stage.update(compiledFor(stage, compiled), active);
    return shown ? stage.basesToShow(shown, active?.first ?? 0) : stage.bases();
  }

  #measure(stage: Stage, { pins }: RenderRequest, acting?: number | null): void {
    const histograms = stage.histograms();
    if (!histograms) return;
    this.#countedAt = performance.now();
    const read = pins.flatMap((pin) => readStage(stage, pin) ?? []);
    this.host.say({ type: "measured", view: this.id, histograms, pins: read, acting });
  }

  #countExactly({ request, compiled }: Wish): void {
    const { stage: shown, print } = this.#viewOf(request);
    if (request.look.kind === "colour") shown.update(compiledFor(shown, compiled), request.active, { print });
    const preview = this.#preview.stage("print");
    const onPreview = printOn(request.plan.frame, this.open.picture.levels[0]!, preview.size);
    preview.update(compiledFor(preview, compiled), request.active, { print: onPreview });
    this.#measure(preview, request, actingShare(preview, request));
  }

  #viewOf(request: RenderRequest): ShownView {
    return this.#shown.view(request.shownFrame, request.shownSize, purposeOf(request));
  }

  /** What a request wants to be seen closely, if anything. */
  #wantedOf({ detail, shownFrame, plan }: RenderRequest, compiled: CompiledPlan): Wanted | undefined {
    if (!detail) return undefined;
    const { picture, isCleaned } = this.open;
    const { width, height } = picture.levels[detail.level]!;
    const reach = closeReach(compiled, Math.max(width, height));
    return { area: detail, frame: shownFrame, spots: plan.spots, isCleaned: isCleaned && compiled.clean > 0, reach };
  }

  /** Renders what is wanted by now, which may be another look or plan than when something was asked for. */
  #renderAgain(): void {
    this.#waiting ??= this.#last;
    if (this.#waiting) this.host.schedule();
  }

  #sayFailed(error: unknown): void {
    if ((error as Error).name !== "AbortError") this.host.say({ type: "failed", view: this.id, message: wordsOf(error).message });
  }
}

/** What a stage can render of a plan by what it was given. */
const compiledFor = (stage: Stage, compiled: CompiledPlan) => stage.source.asFarAsGiven(compiled);

const purposeOf = ({ isPeek }: RenderRequest): Purpose => (isPeek ? "glance" : "print");

const sizeOf = ({ width, height }: Size): Size => ({ width, height });

function pixelsOf(
  { stage, print }: ShownView,
  { request, compiled }: Wish,
  buffer: ArrayBuffer | undefined,
  { bases, isMoving }: { bases?: Bases | undefined; isMoving?: boolean } = {},
) {
  const showing = { ...showingOf(request.look), screens: request.screens, mask: activeMask(request), exposed: activeStops(request) };
  return stage.render(compiledFor(stage, compiled), request.active, showing, { buffer, bases, print, isMoving });
}

/** The part of the print the pass in hand acts on. */
function actingShare(stage: Stage, request: RenderRequest): number | null {
  const mask = activeMask(request);
  if (!mask.mask && !mask.reach) return null;
  return stage.meanInPrint(stage.shownMask(mask));
}

/** Reads a stage of the picture or of a part; undefined outside that. */
function readStage(stage: Stage, { x, y }: Place): PointReading | undefined {
  const { place, size } = stage.source;
  const { width, height } = place.whole;
  const [column, row] = [Math.floor(Math.min(x * width, width - 0.5) - place.x), Math.floor(Math.min(y * height, height - 0.5) - place.y)];
  const isInside = column >= 0 && row >= 0 && column < size.width && row < size.height;
  return isInside ? stage.readPoint(column, row) : undefined;
}
