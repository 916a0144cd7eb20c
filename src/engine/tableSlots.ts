import { CoreError } from "@/core/errors";
import type { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf } from "@/core/kernels/pairTable";

/** Which slots hold what a step reads: what share reaches each tone, how far a blend does, and from the last on whatever else it has. */
export const [SHARE_SLOT, BLEND_SLOT, STOPS_SLOTS] = [0, 1, 2] as const;

/** Room in a heap for a few tables at a time, each copied in only when another lies in its slot. */
export class TableSlots {
  readonly #first: number;
  readonly #bytes: number;
  readonly #inSlot: (Float32Array | undefined)[] = [];

  /** Bytes that so many slots need in a heap, for tables of so many knots at the most. */
  static bytes(slots: number, knots: number): number {
    return slots * (8 * (knots + 1) + 16);
  }

  constructor(
    readonly heap: KernelHeap,
    slots: number,
    knots: number,
  ) {
    this.#bytes = Math.ceil((8 * (knots + 1)) / 16) * 16;
    this.#first = heap.reserve(slots * this.#bytes);
  }

  /** A table's place in the heap. Errors: CoreError `bad_size` where it has more knots than there is room for. */
  at(slot: number, table: Float32Array): number {
    const at = this.#first + slot * this.#bytes;
    if (this.#inSlot[slot] === table) return at;
    if (4 * table.length > this.#bytes) throw new CoreError("bad_size", `a table of ${knotsOf(table)} knots does not fit`);
    this.heap.f32(at, table.length).set(table);
    this.#inSlot[slot] = table;
    return at;
  }
}
