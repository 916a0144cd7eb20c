import { CoreError } from "@/core/errors";
import type { KernelHeap } from "@/core/kernels/kernelHeap";

/**
 * Room in a heap for the few arrays used last, each copied in only when it does not lie there already. What two calls ago was given stays
 * good: there are more slots than a kernel reads at once.
 */
export class ArraySlots {
  readonly #first: number;
  readonly #bytes: number;
  readonly #arrays: (Float32Array | undefined)[];
  readonly #usedAt: number[];
  #uses = 0;

  /** Bytes that so many slots reserve in a heap, for arrays of so many numbers at the most. */
  static bytes(slots: number, numbers: number): number {
    return slots * slotBytes(numbers) + 16;
  }

  constructor(
    readonly heap: KernelHeap,
    slots: number,
    numbers: number,
  ) {
    this.#bytes = slotBytes(numbers);
    this.#first = heap.reserve(slots * this.#bytes);
    this.#arrays = Array.from({ length: slots });
    this.#usedAt = Array.from({ length: slots }, () => 0);
  }

  /** An array's place in the heap. Errors: CoreError `bad_size` where it is longer than there is room for. */
  at(array: Float32Array): number {
    let slot = this.#arrays.indexOf(array);
    if (slot < 0) {
      if (4 * array.length > this.#bytes) throw new CoreError("bad_size", `${array.length} numbers, room for ${this.#bytes / 4}`);
      slot = this.#usedAt.indexOf(Math.min(...this.#usedAt));
      this.heap.f32(this.#first + slot * this.#bytes, array.length).set(array);
      this.#arrays[slot] = array;
    }
    this.#usedAt[slot] = ++this.#uses;
    return this.#first + slot * this.#bytes;
  }
}

const slotBytes = (numbers: number) => Math.ceil((4 * numbers) / 16) * 16;
