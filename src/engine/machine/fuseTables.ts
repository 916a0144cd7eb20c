import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { knotsOf, pairTable, readTable } from "@/core/kernels/pairTable";
import type { Step } from "@/core/steps/step";
import { TONE_KNOTS } from "@/core/zones/toneKnots";
import { ArraySlots } from "./arraySlots";

/** Knots of a fused table: four between two of a pass's own, for the bends of later passes lie anywhere. */
export const FUSED_KNOTS = 4 * TONE_KNOTS;
/** Fewer tables than this are quicker read one after the other than put together, and exact. */
const LEAST_FUSED = 4;
/** Fused tables kept: those before, in and after the hand, now and a moment ago. */
const MOST_KEPT = 6;
/** Knots of levels over light: near black, where they are steep, they are straight; elsewhere they err by a thousandth of a level. */
const LIGHT_KNOTS = 4096;

/** The tables of steps; undefined where any is of another kind. */
export function tablesOf(steps: readonly Step[]): Float32Array[] | undefined {
  const tables = steps.flatMap((step) => (step.kind === "table" ? [step.table] : []));
  return tables.length === steps.length ? tables : undefined;
}

/**
 * Puts runs of tone tables together into one, keeping the last few: the run behind the pass in hand
 * is put together once, however long it is and however the hand moves.
 *
 * Source  docs/decisions/0001-tables.md (measured error below 5e-5 in tone, whatever the strands; exports do not use it).
 */
export class TableFuser {
  #kept: { tables: readonly Float32Array[]; fused: Float32Array }[] = [];
  #ofLight: { look: Float32Array; levels: Float32Array } | undefined;

  /** Steps that do what these do, and are quickest done: many tables as one. */
  quickest(steps: readonly Step[]): readonly Step[] {
    const tables = steps.length < LEAST_FUSED ? undefined : tablesOf(steps);
    return tables ? [{ kind: "table", table: this.fuse(tables) }] : steps;
  }

  /** One table that adds what these add one after the other. */
  fuse(tables: readonly Float32Array[]): Float32Array {
    const at = this.#kept.findIndex((kept) => kept.tables.length === tables.length && kept.tables.every((table, i) => table === tables[i]));
    const found = at >= 0 ? this.#kept.splice(at, 1)[0]! : { tables, fused: knots().through(tables, "tone").added() };
    this.#kept = [found, ...this.#kept].slice(0, MOST_KEPT);
    return found.fused;
  }

  /**
   * Levels over tones before tables, or over their light, by a look's levels over tone; the first `moved` of the tables change from frame
   * to frame.
   */
  shown(tables: readonly Float32Array[], moved: number, look: Float32Array, over: "tone" | "light"): Float32Array {
    return knots().through(this.#movedFirst(tables, moved), over).read(look).pairs();
  }

  /** What makes tones, or light, the light that tables make of them: the same tables, as one that adds. */
  lit(tables: readonly Float32Array[], moved: number, over: "tone" | "light"): Float32Array {
    return knots().through(this.#movedFirst(tables, moved), over).read(LIGHT).added();
  }

  /** A look's levels over light. */
  shownOfLight(look: Float32Array): Float32Array {
    const known = this.#ofLight;
    if (known?.look === look) return known.levels;
    const levels = pairTable(LIGHT_KNOTS, (y) => readTable(look, luminanceToTone(y)));
    this.#ofLight = { look, levels };
    return levels;
  }

  /** The same tables with those that stay put together. */
  #movedFirst(tables: readonly Float32Array[], moved: number): readonly Float32Array[] {
    const stays = tables.slice(Math.max(moved, 0));
    return stays.length < 2 ? tables : [...tables.slice(0, Math.max(moved, 0)), this.fuse(stays)];
  }
}

/** The light of tones. */
const LIGHT = pairTable(TONE_KNOTS, toneToLuminance);

/** What becomes of the tones at the knots of a fused table, by the kernels that read tables. */
class KnotTones {
  readonly #heap = new KernelHeap(8 * PADDED + 8 * (PADDED + 4) + ArraySlots.bytes(3, 2 * (FUSED_KNOTS + 1)) + 1024);
  readonly #knots = this.#heap.put(KNOT_TONES);
  readonly #values = this.#heap.reserve(4 * PADDED);
  readonly #pairs = this.#heap.reserve(8 * (PADDED + 4));
  readonly #tables = new ArraySlots(this.#heap, 3, 2 * (FUSED_KNOTS + 1));

  /** Begins anew, with those tones or with those of as much light: what tables make of them, one after the other. */
  through(tables: readonly Float32Array[], over: "tone" | "light"): this {
    this.#heap.f32(this.#values, PADDED).set(over === "tone" ? KNOT_TONES : TONES_OF_LIGHT);
    for (const table of tables) this.#heap.run.addLookedUp(this.#values, this.#values, PADDED, this.#tables.at(table), knotsOf(table));
    return this;
  }

  /** Reads a table at what they are by now. */
  read(table: Float32Array): this {
    this.#heap.run.lookUp(this.#values, this.#values, PADDED, this.#tables.at(table), knotsOf(table));
    return this;
  }

  /** A pair table of what they are. */
  pairs(): Float32Array {
    return this.#pairsLess(0);
  }

  /** A pair table of what was added to them. */
  added(): Float32Array {
    return this.#pairsLess(this.#knots);
  }

  #pairsLess(less: number): Float32Array {
    this.#heap.run.pairsOf(this.#values, less, this.#pairs, FUSED_KNOTS);
    return this.#heap.f32(this.#pairs, 2 * (FUSED_KNOTS + 1)).slice();
  }
}

/** One for all fusers of a thread: what it holds is nobody's once its table is made. */
const knots = () => (made ??= new KnotTones());
let made: KnotTones | undefined;

/** Room for those tones, as kernels take them. */
const PADDED = Math.ceil((FUSED_KNOTS + 1) / 4) * 4 + 4;
const KNOT_TONES = Float32Array.from({ length: PADDED }, (_, knot) => Math.min(knot / FUSED_KNOTS, 1));
const TONES_OF_LIGHT = KNOT_TONES.map(luminanceToTone);
