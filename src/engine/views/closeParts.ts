import type { TaskRunner } from "../pool/taskRunner";
import { cleanedLevel, type PreparedPicture } from "@/contracts/preparedPicture";
import {
  frameKey,
  isPixelForPixel,
  onPart,
  partOfPlacing,
  pictureArea,
  placedAsIs,
  printOn,
  type Frame,
  type Placing,
} from "@/core/frame/frame";
import type { CompiledPlan } from "@/core/plan/compilePlan";
import { TURN_REACH } from "@/core/kernels/turnWeights";
import type { Size } from "@/core/spatial/areaReduce";
import type { Spot } from "@/core/spots/spot";
import type { LevelArea, LevelFetcher } from "../source/levelFetcher";
import { RoughFrames } from "./roughFrames";
import { Source } from "../source/source";
import { Views } from "./views";
import { BesideParts } from "./besideParts";
import { scaledSize, ShownViews, type ShownView } from "./shownViews";

/** A part of a print that is looked at closely: a rectangle of it at a level. */
export interface Wanted {
  area: LevelArea;
  frame: Frame;
  spots: readonly Spot[];
  /** Whether its mix reads cleaned colour, and that is to be had. */
  isCleaned: boolean;
  /** How many pixels beyond it matter to it. */
  reach: number;
}

/** One that is there. */
export interface ClosePart {
  of: Wanted;
  views: Views;
  /** Where the print's part lies in what was fetched; absent where it is all of that. */
  print: Placing | undefined;
  /** The same picture at the sizes it is shown at, where all of it is there. */
  whole: ShownViews | undefined;
  beside: BesideParts;
  rough: RoughFrames;
  /** It smaller, with the spots it had then. */
  smaller: { scale: number; spotsKey: string; views: Views } | undefined;
}

/** A part with edges so many times as long, its spots covered as in a plan. */
export function smallerPart(part: ClosePart, scale: number, plan: Pick<CompiledPlan, "spots" | "spotsKey">): ShownView {
  const { source } = part.views;
  const { spotsKey } = plan;
  if (part.smaller?.scale !== scale || part.smaller.spotsKey !== spotsKey) {
    source.heal(plan); // a glance at another state may have covered others
    part.smaller = { scale, spotsKey, views: new Views(source.reducedPlainly(scaledSize(source.size, scale))) };
  }
  const stage = part.smaller.views.stage("print");
  return { stage, print: part.print && smallerPrint(part.print, stage.size, scale) };
}

/**
 * Where a print lies on a part that is smaller. What is cut pixel for pixel stays so, for between pixels it takes longer: what a frame
 * changes may lie half a pixel beside.
 */
function smallerPrint(print: Placing, size: Size, scale: number): Placing {
  const { width, height } = scaledSize(print, scale);
  const [x, y] = [print.x * scale, print.y * scale];
  const isUpright = print.across.x === 1 && print.down.y === 1;
  if (!isUpright || !isPixelForPixel(print)) return { ...print, x, y, width, height };
  return { ...print, x: Math.min(Math.round(x), size.width - width), y: Math.min(Math.round(y), size.height - height), width, height };
}

/** Pixels beyond a part are fetched in such steps, so that a radius under the hand does not ask for others each time. */
const REACH_STEP = 16;

/** The part of a print that is looked at closely: fetched when it is wanted, and kept for as long as it serves. */
export class CloseParts {
  #there: ClosePart | undefined;
  #fetching: { of: Wanted; abort: AbortController } | undefined;

  constructor(
    readonly picture: PreparedPicture,
    readonly fetcher: LevelFetcher,
    readonly cleaned: LevelFetcher,
    /** Told when something came that was wanted. */
    readonly onArrived: () => void,
    readonly onFailed: (error: unknown) => void,
    /** Helps with what is seen closely. */
    readonly runner: TaskRunner,
  ) {}

  /** What is there, wherever it lies. */
  get there(): ClosePart | undefined {
    return this.#there;
  }

  /**
   * What is there of a part, even where cleaned colour, pixels beyond it or what covers its spots are still on their way; all that is
   * missing is fetched.
   */
  at(asked: Wanted): ClosePart | undefined {
    const wanted = { ...asked, reach: REACH_STEP * Math.ceil(asked.reach / REACH_STEP) };
    const there = this.#there && lies(this.#there.of, wanted) ? this.#there : undefined;
    if (!there || !serves(there.of, wanted)) this.#fetch(wanted);
    if (there) this.#fetchBeside(there, wanted.spots);
    return there;
  }

  /** Nothing is looked at closely any more. */
  rest(): void {
    this.#fetching?.abort.abort();
  }

  #fetch(of: Wanted): void {
    if (this.#fetching && serves(this.#fetching.of, of)) return;
    this.rest();
    const mine = (this.#fetching = { of, abort: new AbortController() });
    this.#read(of, mine.abort.signal).then(
      (part) => {
        if (this.#fetching !== mine) return;
        this.#fetching = undefined;
        this.#there = part;
        this.onArrived();
      },
      (error: unknown) => {
        if (this.#fetching === mine) this.#fetching = undefined;
        this.onFailed(error);
      },
    );
  }

  async #read(of: Wanted, signal: AbortSignal): Promise<ClosePart> {
    const { area, frame, reach } = of;
    const level = this.picture.levels[area.level]!;
    const whole = printOn(frame, this.picture.levels[0]!, level);
    const part = whole ? partOfPlacing(whole, area.x, area.y, area) : placedAsIs(area);
    const needed = { level: area.level, ...pictureArea(part, level, reach + (isPixelForPixel(part) ? 0 : TURN_REACH)) };
    const cleaned = of.isCleaned ? this.cleaned : undefined;
    const [{ levels, grain }, clean] = await Promise.all([this.fetcher.read(needed, signal), cleaned?.read(needed, signal)]);
    const place = { x: needed.x, y: needed.y, whole: level };
    const source = Source.fromLevels(levels, { width: needed.width, height: needed.height }, level.space, {
      place,
      grain,
      runner: this.runner,
    });
    if (clean) source.giveCleaned({ ...clean, space: cleanedLevel(level).space });
    const beside = new BesideParts(needed, { index: area.level, ...level });
    await beside.fetch(beside.missing(of.spots), source, this.fetcher, cleaned, signal);
    const isAll = !whole && reach === 0;
    const views = new Views(source);
    const isWholePicture = needed.width === level.width && needed.height === level.height;
    return {
      of,
      views,
      print: isAll ? undefined : onPart(part, needed),
      whole: isWholePicture ? new ShownViews(views, this.picture.levels[0]!) : undefined,
      beside,
      rough: new RoughFrames(),
      smaller: undefined,
    };
  }

  /** Fetches what lies beside a part and covers spots in it, where that is not there yet; until then they are not covered. */
  #fetchBeside(part: ClosePart, spots: readonly Spot[]): void {
    const { of, beside, views } = part;
    const missing = beside.missing(spots);
    if (missing.length === 0) return;
    const cleaned = of.isCleaned ? this.cleaned : undefined;
    beside.fetch(missing, views.source, this.fetcher, cleaned, new AbortController().signal).then(() => {
      views.forget();
      part.smaller = undefined;
      this.onArrived();
    }, this.onFailed);
  }
}

/** Whether one lies where another is wanted. */
function lies(there: Wanted, { area, frame }: Wanted): boolean {
  return covers(there.area, area) && frameKey(there.frame) === frameKey(frame);
}

/** Whether one will do for another. */
function serves(there: Wanted, wanted: Wanted): boolean {
  return lies(there, wanted) && (there.isCleaned || !wanted.isCleaned) && there.reach >= wanted.reach;
}

function covers(outer: LevelArea, inner: LevelArea): boolean {
  return (
    outer.level === inner.level &&
    outer.x <= inner.x &&
    outer.y <= inner.y &&
    outer.x + outer.width >= inner.x + inner.width &&
    outer.y + outer.height >= inner.y + inner.height
  );
}
