import { knotsOf } from "@/core/kernels/pairTable";
import type { Step } from "@/core/steps/step";
import { TONE_KNOTS } from "@/core/zones/toneKnots";

/** Knots of a fused table: four between two of a pass's own, for the bends of later passes lie anywhere. */
export const FUSED_KNOTS = 4 * TONE_KNOTS;
/** Fewer tables than this are quicker read one after the other than put together, and exact. */
const LEAST_FUSED = 4;
/** Fused tables kept: those before, in and after the hand, now and a moment ago. */
const MOST_KEPT = 6;

/**
 * Puts runs of tone tables together into one, keeping the last few: the run behind the pass in hand
 * is put together once, however long it is and however the hand moves.
 *
 * Source  docs/decisions/0001-tables.md (measured error below 5e-5 in tone, whatever the strands; exports do not use it).
 */
export class TableFuser {
  #kept: { tables: readonly Float32Array[]; fused: Float32Array }[] = [];

  /** Steps that do what these do, and are quickest done: many tables as one. */
  quickest(steps: readonly Step[]): readonly Step[] {
    const tables = steps.flatMap((step) => (step.kind === "table" ? [step.table] : []));
    return steps.length < LEAST_FUSED || tables.length < steps.length ? steps : [{ kind: "table", table: this.fuse(tables) }];
  }

  /** One table that adds what these add one after the other. */
  fuse(tables: readonly Float32Array[]): Float32Array {
    const at = this.#kept.findIndex((kept) => kept.tables.length === tables.length && kept.tables.every((table, i) => table === tables[i]));
    const found = at >= 0 ? this.#kept.splice(at, 1)[0]! : { tables, fused: fused(tables) };
    this.#kept = [found, ...this.#kept].slice(0, MOST_KEPT);
    return found.fused;
  }
}

function fused(tables: readonly Float32Array[]): Float32Array {
  const tones = Float64Array.from({ length: FUSED_KNOTS + 1 }, (_, knot) => knot / FUSED_KNOTS);
  for (const table of tables) addTable(tones, table);
  const out = new Float32Array(2 * (FUSED_KNOTS + 1));
  for (let k = 0; k <= FUSED_KNOTS; k++) {
    const change = tones[k]! - k / FUSED_KNOTS;
    out[2 * k] = change;
    out[2 * k + 1] = k < FUSED_KNOTS ? tones[k + 1]! - (k + 1) / FUSED_KNOTS - change : 0;
  }
  return out;
}

function addTable(tones: Float64Array, table: Float32Array): void {
  const knots = knotsOf(table);
  for (let i = 0; i < tones.length; i++) {
    const at = Math.min(Math.max(tones[i]!, 0), 1) * knots;
    const k = Math.floor(at);
    tones[i] = tones[i]! + table[2 * k]! + table[2 * k + 1]! * (at - k);
  }
}
