import type { BandMachine } from "../machine/bandMachine";
import { Arena, pieceOf } from "./arena";
import { INLINE, type TaskRunner } from "./taskRunner";
import type { Help } from "./poolWorker";
import { DONE, FAILED, MOST_WORKS, Slots } from "./slots";
import { replaced, type TaskPlane } from "../tasks/taskPlanes";
import { TASKS, type Band, type TaskName, type Tasks } from "../tasks/tasks";

/** A thread that helps: whatever it is sent, a `PoolWorker` in it is to help with. */
export interface PoolThread {
  send(help: Help): void;
  /** It is heard of no more. */
  stop(): void;
}

/** Slots to a helper: it works on one while the other is filled. */
const SLOTS_EACH = 2;
/** Less work than this, in tables read, is done before a helper has heard of it. */
const LEAST_WORK = 3e6;
/** Arrays of so many bytes lie in shared memory once, rather than being copied to each helper. */
const LARGE_BYTES = 1 << 15;

/** A plane of a job, and where bands of it lie in a slot. */
interface Copied {
  whole: TaskPlane<Float32Array | Uint8Array>;
  inSlot: Float32Array | Uint8Array;
}

/** A slot while it is used: what is copied in and out, and the band in it. */
interface Slot {
  slot: number;
  helper: PoolThread;
  copied: readonly Copied[];
  band: Band | undefined;
}

/**
 * Shares bands out among helpers. Bands are copied to where helpers find them and back, so that nothing else need lie in shared memory,
 * whose end is nobody's. It works on bands itself meanwhile, and does whatever no helper has begun, so that it never waits for one that has
 * not come.
 *
 * Memory  two bands of each helper's planes.
 */
export class WorkerPool implements TaskRunner {
  #threads: readonly PoolThread[];
  #arena = new Arena();
  #slots: Slots;
  #work = 0;

  /** A helper that takes longer for a band than it is given is lost; less work than `leastWork` is shared with nobody. */
  constructor(
    threads: readonly PoolThread[],
    readonly lostAfterMs = 2000,
    readonly leastWork = LEAST_WORK,
  ) {
    this.#threads = threads;
    this.#slots = Slots.of(SLOTS_EACH * threads.length);
  }

  /** Has one more helper from now on. */
  join(thread: PoolThread): void {
    this.#threads = [...this.#threads, thread];
    this.#slots = Slots.of(SLOTS_EACH * this.#threads.length);
  }

  /** Does without a helper from now on. */
  lose(thread: PoolThread): void {
    if (!this.#threads.includes(thread)) return;
    thread.stop();
    this.#threads = this.#threads.filter((other) => other !== thread);
    this.#renew();
  }

  /** Tasks elsewhere from now on: a helper that is not done yet writes where it was told to. */
  #renew(): void {
    this.#arena = new Arena();
    this.#slots = Slots.of(this.#slots.count); // as many as ever: what is under way asks for its slots still
  }

  perform<K extends TaskName>(machine: BandMachine, name: K, job: Tasks[K], bands: readonly Band[]): void {
    const { begin, perform, weigh } = TASKS[name];
    const pixels = bands.reduce((sum, { first, end }) => sum + end - first, 0);
    const slots = weigh(job) * pixels < this.leastWork ? [] : this.#tell(name, job, bands);
    if (slots.length === 0) return INLINE.perform(machine, name, job, bands);
    begin?.(machine, job);
    const handed = this.#slots;
    const left = [...bands];
    const own = (band: Band) => perform(machine, job, band);
    try {
      for (;;) {
        for (const slot of slots) this.#tend(slot, left, own);
        const next = left.shift() ?? this.#takenBack(slots);
        if (next) own(next);
        else if (slots.some(({ band }) => band)) this.#wait(slots, own);
        else return;
      }
    } finally {
      // No slot is of this work any longer: whoever looks after one goes.
      for (const { slot } of slots) handed.empty(slot, 0);
      if (slots.some(({ band }) => band)) this.#renew(); // something was thrown meanwhile
    }
  }

  /** Tells the helpers of a work; returns their slots, none where there is too much of it for the memory. */
  #tell<K extends TaskName>(name: K, job: Tasks[K], bands: readonly Band[]): Slot[] {
    const capacity = Math.max(...bands.map(({ first, end }) => end - first));
    const count = SLOTS_EACH * this.#threads.length;
    const bytes = bytesOf(job, capacity);
    if (count === 0 || !this.#arena.clear(bytes.once + count * bytes.inSlot)) return [];
    const work = (this.#work = (this.#work % (MOST_WORKS - 1)) + 1);
    const arrays = new Map<object, Float32Array>();
    return this.#threads.flatMap((helper, i) => {
      const jobs = Array.from({ length: SLOTS_EACH }, (_, k) => {
        const slot = SLOTS_EACH * i + k;
        this.#slots.empty(slot, work);
        return { slot, ...inSlot(job, capacity, this.#arena, arrays) };
      });
      helper.send({ work, name, shared: this.#slots.shared, slots: jobs.map((one) => ({ slot: one.slot, job: one.job })), capacity });
      return jobs.map(({ slot, copied }) => ({ slot, helper, copied, band: undefined }));
    });
  }

  /** Takes what is done out of a slot, and fills it with one of the bands that are left. */
  #tend(slot: Slot, left: Band[], own: (band: Band) => void): void {
    const state = this.#slots.state(slot.slot, this.#work);
    if (state === FAILED) own(slot.band!);
    if (state === DONE) copyOut(slot.copied, slot.band!);
    if (state === DONE || state === FAILED) {
      slot.band = undefined;
      this.#slots.empty(slot.slot, this.#work);
    }
    const band = slot.band ? undefined : left.shift();
    if (!band) return;
    copyIn(slot.copied, band);
    slot.band = band;
    this.#slots.fill(slot.slot, this.#work, { pixels: band.end - band.first, y: band.y, rows: band.rows });
  }

  /** A band that was handed over and not begun. */
  #takenBack(slots: readonly Slot[]): Band | undefined {
    const unbegun = slots.find(({ slot, band }) => band && this.#slots.claim(slot, this.#work));
    const band = unbegun?.band;
    if (unbegun) unbegun.band = undefined;
    return band;
  }

  /** Waits for what is under way; a helper that has it too long is lost, and what it had is done without it. */
  #wait(slots: readonly Slot[], own: (band: Band) => void): void {
    const begin = performance.now();
    for (;;) {
      const finished = this.#slots.finished;
      const isDone = ({ slot }: Slot) => [DONE, FAILED].includes(this.#slots.state(slot, this.#work) as typeof DONE);
      if (slots.some((slot) => slot.band && isDone(slot))) return;
      if (performance.now() - begin > this.lostAfterMs) break;
      this.#slots.waitForMore(finished, this.lostAfterMs);
    }
    for (const slot of slots) {
      if (!slot.band) continue;
      this.lose(slot.helper);
      own(slot.band);
      slot.band = undefined;
    }
  }
}

/** What a job takes up in shared memory: in each slot, and besides. */
function bytesOf(job: unknown, capacity: number): { inSlot: number; once: number } {
  const bytes = { inSlot: 0, once: 0 };
  replaced(
    job,
    (plane) => {
      bytes.inSlot += pieceOf(plane.plane.BYTES_PER_ELEMENT * plane.each * capacity);
      return plane;
    },
    (array) => {
      if (isLarge(array)) bytes.once += pieceOf(array.byteLength);
      return array;
    },
  );
  return bytes;
}

/** A job whose planes lie in a slot; its large arrays lie in shared memory once for all slots. */
function inSlot<J>(job: J, capacity: number, arena: Arena, shared: Map<object, Float32Array>): { job: J; copied: Copied[] } {
  const copied: Copied[] = [];
  const read = new Map<object, TaskPlane>();
  const plane = (whole: TaskPlane<Float32Array | Uint8Array>) => {
    const { each, isOutput } = whole;
    const known = isOutput ? undefined : read.get(whole.plane);
    if (known) return known;
    const place = whole.plane instanceof Float32Array ? arena.floats(each * capacity) : arena.bytes(each * capacity);
    copied.push({ whole, inSlot: place });
    const made = { plane: place, each, isOutput } as TaskPlane;
    if (!isOutput) read.set(whole.plane, made);
    return made;
  };
  const array = <A extends object>(own: A): A => {
    if (!isLarge(own)) return own;
    let place = shared.get(own);
    if (!place) {
      shared.set(own, (place = arena.floats(own.length)));
      place.set(own);
    }
    return place as object as A;
  };
  return { job: replaced(job, plane, array), copied };
}

function isLarge(array: object): array is Float32Array {
  return array instanceof Float32Array && array.byteLength >= LARGE_BYTES;
}

function copyIn(copied: readonly Copied[], { first, end }: Band): void {
  for (const { whole, inSlot: place } of copied) {
    if (!whole.isOutput) place.set(whole.plane.subarray(whole.each * first, whole.each * end));
  }
}

function copyOut(copied: readonly Copied[], { first, end }: Band): void {
  for (const { whole, inSlot: place } of copied) {
    if (whole.isOutput) whole.plane.set(place.subarray(0, whole.each * (end - first)), whole.each * first);
  }
}
