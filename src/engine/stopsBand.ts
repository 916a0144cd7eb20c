import { BLEND_MODES } from "@/core/blend/blend";
import { CoreError } from "@/core/errors";
import type { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf } from "@/core/kernels/pairTable";
import type { Surroundings } from "@/core/spatial/slicedBase";
import { SOFT_KNOTS } from "@/core/steps/knots";
import { ROWS_TO_A_SIDE, type StopsRows } from "@/core/steps/orderedStops";
import type { Blended, GivenStops, StopsThrough, SurroundingsStep } from "@/core/steps/step";
import type { PlaneName } from "./bandMachine";
import { padded, type BandPlace, type SurroundingsBand } from "./surroundingsBand";
import { BLEND_SLOT, SHARE_SLOT, STOPS_SLOTS, type TableSlots } from "./tableSlots";

/** Steps whose rows of stops are held at once, so that a few in turn are not copied in for every band. */
const ROWS_SLOTS = 2;
/** Numbers in the rows of stops of a step. */
const ROWS_LENGTH = 2 * (2 * ROWS_TO_A_SIDE + 1) * (SOFT_KNOTS + 1);

/** Exposes the tones of the band in a machine by stops. `pixels` counts those of the band. */
export class StopsBand {
  readonly #rows: number;
  readonly #inRows: (Float32Array | undefined)[] = [];
  #nextRows = 0;

  /** Bytes it reserves in its machine's heap. */
  static readonly bytes = 4 * ROWS_SLOTS * ROWS_LENGTH;

  constructor(
    readonly heap: KernelHeap,
    readonly plane: Record<PlaneName, number>,
    readonly tables: TableSlots,
    readonly around: SurroundingsBand,
  ) {
    this.#rows = heap.reserve(StopsBand.bytes);
  }

  /** tone → tone, exposed by what its surroundings give it; by the mask too, where it is asked for. */
  bySurroundings(
    { own, around, through, blended }: SurroundingsStep,
    bases: readonly Surroundings[],
    place: BandPlace,
    byMask: boolean,
    pixels: number,
  ): void {
    const p = this.plane;
    const n = padded(pixels);
    const { run } = this.heap;
    if (own) run.lookUp(p.tone, p.stops, n, this.tables.at(STOPS_SLOTS, own), knotsOf(own));
    else this.heap.f32(p.stops, n).fill(0);
    around.forEach(({ stops }, i) => {
      this.around.sample(bases[i]!, place, p.around, pixels);
      run.addTable(p.stops, p.around, n, this.tables.at(STOPS_SLOTS + 1 + i, stops), knotsOf(stops));
    });
    if (blended?.rows) return this.#changeByRows(blended.rows, byMask, n);
    if (byMask && !blended) run.multiply(p.stops, p.mask, p.stops, n);
    this.#passThrough(through, n);
    this.#expose(blended, byMask, false, n);
  }

  /** tone → tone, exposed by the stops in the machine, where anything is painted, by those given flat and those given by tone. */
  byStops({ gain, flat, through, byTone, blended, onPaper }: GivenStops, isPainted: boolean, byMask: boolean, pixels: number): void {
    const p = this.plane;
    const n = padded(pixels);
    const { run } = this.heap;
    if (!isPainted) this.heap.f32(p.stops, n).fill(flat);
    else if (gain !== 1 || flat !== 0) run.scaleAdd(p.stops, n, gain, flat);
    if (blended?.rows) return this.#changeByRows(blended.rows, byMask, n);
    const scales = byMask && !blended;
    if (scales) run.multiply(p.stops, p.mask, p.stops, n);
    this.#passThrough(through, n);
    if (byTone) {
      const table = this.tables.at(STOPS_SLOTS, byTone);
      if (scales) run.addTableBy(p.stops, p.mask, p.tone, n, table, knotsOf(byTone));
      else run.addTable(p.stops, p.tone, n, table, knotsOf(byTone));
    }
    this.#expose(blended, byMask, onPaper, n);
  }

  /** stops → the stops that reach each tone. */
  #passThrough({ share, rows }: StopsThrough, n: number): void {
    const { stops, tone } = this.plane;
    if (rows) this.heap.run.throughRows(stops, tone, n, this.#rowsAt(rows), rows.knots, rows.side, rows.most);
    else if (share) this.heap.run.scaleLookedUp(stops, tone, n, this.tables.at(SHARE_SLOT, share), knotsOf(share));
  }

  /** tone → tone and what rows say of its stops. */
  #changeByRows(rows: StopsRows, byMask: boolean, n: number): void {
    const { stops, tone, mask } = this.plane;
    this.#passThrough({ share: undefined, rows }, n);
    if (byMask) this.heap.run.multiply(stops, mask, stops, n);
    this.heap.run.add(tone, stops, tone, n);
  }

  /** tone → tone, exposed by the plane of stops and blended, as far as share and mask let it through. */
  #expose(blended: Blended | undefined, byMask: boolean, onPaper: boolean, n: number): void {
    const p = this.plane;
    const { run } = this.heap;
    if (!blended) return run.exposeBy(p.tone, p.stops, p.tone, n, Number(onPaper));
    // A blend changes tones by itself, so what is to stay is mixed back in afterwards.
    run.exposeBy(p.tone, p.stops, p.above, n, Number(onPaper));
    run.blendPlanes(p.tone, p.above, p.above, n, BLEND_MODES.indexOf(blended.mode));
    run.lookUp(p.tone, p.stops, n, this.tables.at(BLEND_SLOT, blended.share), knotsOf(blended.share));
    if (byMask) run.multiply(p.stops, p.mask, p.stops, n);
    run.mixBy(p.tone, p.above, p.stops, p.tone, n);
  }

  /** The place of rows in the heap, where they are copied unless they lie there already. */
  #rowsAt({ tables }: StopsRows): number {
    let slot = this.#inRows.indexOf(tables);
    if (slot < 0) {
      if (tables.length > ROWS_LENGTH) throw new CoreError("bad_size", `${tables.length} numbers in rows, room for ${ROWS_LENGTH}`);
      slot = this.#nextRows++ % ROWS_SLOTS;
      this.heap.f32(this.#rows + 4 * slot * ROWS_LENGTH, tables.length).set(tables);
      this.#inRows[slot] = tables;
    }
    return this.#rows + 4 * slot * ROWS_LENGTH;
  }
}
