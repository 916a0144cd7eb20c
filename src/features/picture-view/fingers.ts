import type { PixelPoint } from "@/core/units";

/** A finger on the easel, in CSS pixels of it. */
export interface Finger extends PixelPoint {
  pointerId: number;
}

/** What fingers do, told as they do it. */
export interface FingerActs<F extends Finger> {
  /** One finger uses the tool in hand: from where it was put down, on its way, and when it is lifted or does not count after all. */
  press(finger: F): void;
  move(finger: F): void;
  release(finger: F): void;
  cancel(): void;
  /** One finger that was held still reads. */
  read(finger: F): void;
  /** The view is taken hold of, and then carried from one place to another and enlarged, always as from the hold. */
  hold(): void;
  carry(from: PixelPoint, to: PixelPoint, ratio: number): void;
}

/** CSS pixels by which a finger that is held still may stray. */
const STRAY = 8;
/** How long it is held until it reads. */
const LONG_PRESS_MS = 450;
/** A second finger that comes within this was meant from the beginning; one that comes later is a palm's. */
const LATE_MS = 250;

/**
 * What fingers on the easel are about: one uses the tool, a tap as a whole, or reads once it was held still; two move the picture and
 * enlarge it, and never paint. Nothing is done before it is known which.
 */
export class Fingers<F extends Finger> {
  readonly #acts: FingerActs<F>;
  readonly #down = new Map<number, F>();
  #doing: "nothing" | "waiting" | "using" | "reading" | "carrying" = "nothing";
  #first: F | undefined;
  #usingSince = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #hold: { middle: PixelPoint; span: number } | undefined;

  constructor(acts: FingerActs<F>) {
    this.#acts = acts;
  }

  /** mayUse: whether one finger uses the tool, or carries the picture as two do. */
  down(finger: F, mayUse: boolean): void {
    this.#down.set(finger.pointerId, finger);
    if (this.#down.size === 1) {
      this.#first = finger;
      if (!mayUse) return this.#carry();
      this.#doing = "waiting";
      this.#timer = setTimeout(() => {
        this.#doing = "reading";
        this.#acts.read(this.#down.get(finger.pointerId)!);
      }, LONG_PRESS_MS);
    } else if (this.#down.size === 2) {
      if (this.#doing === "using" && performance.now() - this.#usingSince > LATE_MS) return;
      if (this.#doing === "using") this.#acts.cancel();
      this.#carry();
    }
  }

  move(finger: F): void {
    if (!this.#down.has(finger.pointerId)) return;
    this.#down.set(finger.pointerId, finger);
    const isFirst = finger.pointerId === this.#first?.pointerId;
    if (this.#doing === "carrying") return this.#carryOn();
    if (!isFirst) return;
    if (this.#doing === "reading") return this.#acts.read(finger);
    if (this.#doing === "waiting" && apart(finger, this.#first!) > STRAY) this.#use();
    if (this.#doing === "using") this.#acts.move(finger);
  }

  up(finger: F, isCancelled = false): void {
    if (!this.#down.has(finger.pointerId)) return;
    if (finger.pointerId === this.#first?.pointerId) {
      if (this.#doing === "waiting" && !isCancelled) this.#use();
      if (this.#doing === "using") {
        if (isCancelled) this.#acts.cancel();
        else this.#acts.release(finger);
      }
      if (this.#doing !== "carrying") this.#doing = "nothing";
    }
    this.#down.delete(finger.pointerId);
    if (this.#down.size === 0) this.#doing = "nothing";
    else if (this.#doing === "carrying") this.#carry();
    clearTimeout(this.#timer);
  }

  #use(): void {
    clearTimeout(this.#timer);
    this.#doing = "using";
    this.#usingSince = performance.now();
    this.#acts.press(this.#first!);
  }

  #carry(): void {
    clearTimeout(this.#timer);
    this.#doing = "carrying";
    this.#hold = this.#grasp();
    this.#acts.hold();
  }

  #carryOn(): void {
    const { middle, span } = this.#grasp();
    this.#acts.carry(this.#hold!.middle, middle, this.#hold!.span > 0 ? span / this.#hold!.span : 1);
  }

  /** The middle of the first two fingers, and how far they are apart. */
  #grasp(): { middle: PixelPoint; span: number } {
    const [a, b = a] = [...this.#down.values()];
    return { middle: { x: (a!.x + b!.x) / 2, y: (a!.y + b!.y) / 2 }, span: apart(a!, b!) };
  }
}

const apart = (a: PixelPoint, b: PixelPoint) => Math.hypot(a.x - b.x, a.y - b.y);
