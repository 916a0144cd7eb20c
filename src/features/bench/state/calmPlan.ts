import type { Plan } from "@/core/plan/plan";
import type { BenchStore } from "./benchStore";
import { settledPlan } from "./inPlan";

/** How far apart what a hand moves is shown where it need not follow every move. */
const EVERY_MS = 200;

/**
 * The plan on the bench for what need not follow every move of a hand: each step of its history is there at once, and so is all else while
 * `isCalm` says no; what a hand moves otherwise, a few times a second.
 */
export class CalmPlan {
  readonly #listeners = new Set<() => void>();
  #shown: { plan: Plan; head: string; at: number };
  #later: ReturnType<typeof setTimeout> | undefined;
  #stop: (() => void) | undefined;

  constructor(
    readonly store: BenchStore,
    readonly isCalm: () => boolean,
  ) {
    this.#shown = this.#now();
  }

  get(): Plan {
    return this.#shown.plan;
  }

  /** Returns how to stop. */
  subscribe(listener: () => void): () => void {
    this.#listeners.add(listener);
    this.#stop ??= this.store.subscribe(() => this.#follow());
    this.#follow();
    return () => {
      this.#listeners.delete(listener);
      if (this.#listeners.size > 0) return;
      clearTimeout(this.#later);
      this.#later = undefined;
      this.#stop?.();
      this.#stop = undefined;
    };
  }

  #now() {
    const state = this.store.getState();
    return { plan: settledPlan(state), head: state.history.head, at: performance.now() };
  }

  #follow(): void {
    const now = this.#now();
    if (now.plan === this.#shown.plan) return;
    const wait = this.isCalm() && now.head === this.#shown.head ? this.#shown.at + EVERY_MS - now.at : 0;
    if (wait <= 0) this.#show();
    else this.#later ??= setTimeout(() => this.#show(), wait);
  }

  #show(): void {
    clearTimeout(this.#later);
    this.#later = undefined;
    this.#shown = this.#now();
    for (const listener of this.#listeners) listener();
  }
}

/** Tells whether a pointer is pressed elsewhere than in the panel of the step in hand. */
export class PressedElsewhere {
  #isPressed = false;
  readonly #onDown = ({ target }: PointerEvent) => {
    this.#isPressed = !(target instanceof Element && target.closest("aside"));
  };
  readonly #onUp = () => {
    this.#isPressed = false;
  };

  get isPressed(): boolean {
    return this.#isPressed;
  }

  /** Begins to follow the page's pointers; returns how to stop. */
  follow(): () => void {
    addEventListener("pointerdown", this.#onDown, true);
    for (const type of ["pointerup", "pointercancel"]) addEventListener(type, this.#onUp, true);
    return () => {
      removeEventListener("pointerdown", this.#onDown, true);
      for (const type of ["pointerup", "pointercancel"]) removeEventListener(type, this.#onUp, true);
    };
  }
}
