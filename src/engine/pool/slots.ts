/**
 * Places in shared memory where bands are handed over, one after the other, and what has become of each. Whoever hands one in fills an
 * empty slot; a helper claims it, works on it and leaves it done; whoever handed it in empties it again, or takes it back if no helper has
 * claimed it. Every state carries the number of the work it is of, so that a helper that comes late claims nothing of the next.
 *
 * Shape   a word that counts what was finished, then for each slot its state, the pixels, the first row and the rows of its band.
 */
export class Slots {
  readonly #words: Int32Array;

  constructor(readonly shared: SharedArrayBuffer) {
    this.#words = new Int32Array(shared);
  }

  get count(): number {
    return (this.#words.length - 1) / WORDS;
  }

  static of(count: number): Slots {
    return new Slots(new SharedArrayBuffer(4 * (1 + count * WORDS)));
  }

  /** The state of a slot, as far as it is of this work; undefined where it is of another. */
  state(slot: number, work: number): SlotState | undefined {
    const word = Atomics.load(this.#words, at(slot));
    return word >> STATE_BITS === work ? ((word & STATE_MASK) as SlotState) : undefined;
  }

  /** Makes a slot empty for a work. */
  empty(slot: number, work: number): void {
    this.#set(slot, work, EMPTY);
  }

  /** Hands a band in. */
  fill(slot: number, work: number, { pixels, y, rows }: SlotBand): void {
    this.#words.set([pixels, y, rows], at(slot) + 1);
    this.#set(slot, work, FULL);
  }

  /** Takes a full slot for oneself: as a helper, or back as the one who filled it. False where another was quicker. */
  claim(slot: number, work: number): boolean {
    const full = (work << STATE_BITS) | FULL;
    return Atomics.compareExchange(this.#words, at(slot), full, (work << STATE_BITS) | CLAIMED) === full;
  }

  band(slot: number): SlotBand {
    const [pixels = 0, y = 0, rows = 0] = this.#words.subarray(at(slot) + 1, at(slot) + WORDS);
    return { pixels, y, rows };
  }

  /** Says that a claimed slot is done, or that it failed. */
  finish(slot: number, work: number, state: typeof DONE | typeof FAILED): void {
    this.#set(slot, work, state);
    Atomics.add(this.#words, 0, 1);
    Atomics.notify(this.#words, 0);
  }

  /** How many were finished so far. */
  get finished(): number {
    return Atomics.load(this.#words, 0);
  }

  /** Waits until more are finished than so many, or so long. */
  waitForMore(finished: number, ms: number): void {
    Atomics.wait(this.#words, 0, finished, ms);
  }

  /** Waits until a slot has another state than this, or so long. */
  waitForChange(slot: number, work: number, state: SlotState, ms: number): void {
    Atomics.wait(this.#words, at(slot), (work << STATE_BITS) | state, ms);
  }

  #set(slot: number, work: number, state: SlotState): void {
    Atomics.store(this.#words, at(slot), (work << STATE_BITS) | state);
    Atomics.notify(this.#words, at(slot));
  }
}

/** A band in a slot: its pixels, the first of its rows in the picture, and how many they are. */
export interface SlotBand {
  pixels: number;
  y: number;
  rows: number;
}

export const [EMPTY, FULL, CLAIMED, DONE, FAILED] = [0, 1, 2, 3, 4] as const;
type SlotState = 0 | 1 | 2 | 3 | 4;

const WORDS = 4;
const STATE_BITS = 3;
const STATE_MASK = (1 << STATE_BITS) - 1;
/** Tasks are counted up to this, and from 1 on again. */
export const MOST_WORKS = 1 << 27;

const at = (slot: number) => 1 + slot * WORDS;
