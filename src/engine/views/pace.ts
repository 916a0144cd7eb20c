/**
 * What a frame under a moving hand may take in the worker, so that it is drawn within half of one of a screen of 60 Hz: counts and the page
 * want their share. Units: ms.
 */
const BUDGET_MS = 7;
/**
 * Where a hand moves what looks at each pixel by itself: a whole frame each time the screen shows one is better than detail that is not its
 * own.
 */
const POINTWISE_BUDGET_MS = 14;
/** Long edges of frames, in parts of what is shown. */
const SCALES = [1, 1 / 2, 3 / 8, 1 / 4] as const;
/** The quickest of so many frames tells that they are too large: single ones are held up by what the machine does besides. */
const FRAMES_TO_SHRINK = 3;
/** But for so many times the budget, which nothing besides takes. */
const FAR_TOO_LONG = 4;
/** The slowest of so many tells that they may be larger, if it promises to take no more than this part of the budget. */
const FRAMES_TO_GROW = 12;
const ROOM_TO_GROW = 0.6;
/** A whole one where the hand rests tells at once that they may all be whole. */
const ROOM_TO_BE_WHOLE = 0.8;
/** Another size has things to set up: smaller ones that take somewhat longer than they should stay. */
const ROOM_TO_STAY = 1.5;

/**
 * How large frames are rendered while a hand moves: whole where that keeps up with the hand, else as much smaller as they must be. What a
 * frame takes goes with its pixels.
 */
export class Pace {
  #doing: string | undefined;
  #scale = 1;
  #budgetMs = BUDGET_MS;
  /** What the last frames of this size took; undefined until one was made that had things to set up. */
  #took: number[] | undefined;

  /** The part of what is shown that the long edge of frames should have. `doing` tells what is moved from all else. */
  scaleFor(doing: string, isPointwise = false): number {
    this.#budgetMs = isPointwise ? POINTWISE_BUDGET_MS : BUDGET_MS;
    if (doing !== this.#doing) this.#turnTo(1);
    this.#doing = doing;
    return this.#scale;
  }

  /** Tells what a frame took: one as large as advised, or a whole one where the hand rests. */
  took(scale: number, ms: number): void {
    if (scale !== this.#scale) {
      if (scale === 1 && ms <= this.#budgetMs * ROOM_TO_BE_WHOLE) this.#turnTo(1);
      return;
    }
    const took = this.#took;
    if (!took) return void (this.#took = []);
    took.push(ms);
    if (took.length > FRAMES_TO_GROW) took.shift();
    const needed = ms > FAR_TOO_LONG * this.#budgetMs ? 1 : FRAMES_TO_SHRINK;
    const quickest = Math.min(...took.slice(-needed));
    const isTooLarge = took.length >= needed && quickest > this.#budgetMs * (scale < 1 ? ROOM_TO_STAY : 1);
    if (isTooLarge) return this.#turnTo(largest(quickest / scale ** 2, this.#budgetMs));
    if (took.length < FRAMES_TO_GROW) return;
    const larger = largest(Math.max(...took) / scale ** 2, this.#budgetMs * ROOM_TO_GROW);
    if (larger > scale) this.#turnTo(larger);
  }

  #turnTo(scale: number): void {
    this.#scale = scale;
    this.#took = undefined;
  }
}

/** The largest size that takes no longer than it may, where a whole frame takes so long. */
const largest = (wholeMs: number, mayMs: number) => SCALES.find((scale) => wholeMs * scale ** 2 <= mayMs) ?? SCALES.at(-1)!;
