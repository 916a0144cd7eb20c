/** The value of a pair table at x of 0–1, linear between knots. */
export function readTable(table: Float32Array, x: number): number {
  const knots = knotsOf(table);
  const at = Math.min(Math.max(x, 0), 1) * knots;
  const k = Math.min(Math.floor(at), knots);
  return table[2 * k]! + table[2 * k + 1]! * (at - k);
}

/**
 * A function of 0–1 as a table the kernels can read: at each of knots + 1 even places the value
 * and the step to the next one, so that one load gives both.
 *
 * Shape   2 · (knots + 1) numbers.
 */
export function pairTable(knots: number, valueAt: (x: number) => number): Float32Array {
  const table = new Float32Array(2 * (knots + 1));
  let value = valueAt(0);
  for (let k = 0; k <= knots; k++) {
    const next = k < knots ? valueAt((k + 1) / knots) : value;
    table[2 * k] = value;
    table[2 * k + 1] = next - value;
    value = next;
  }
  return table;
}

/** Just inside the borders of a stretch between two knots, as a part of it. */
const INSIDE = 1e-6;

/**
 * The same for a function with jumps that lie on knots: each stretch runs from its own left end to its
 * own right end, so that a jump stays a jump.
 */
export function jumpTable(knots: number, valueAt: (x: number) => number): Float32Array {
  const table = new Float32Array(2 * (knots + 1));
  for (let k = 0; k < knots; k++) {
    table[2 * k] = valueAt((k + INSIDE) / knots);
    table[2 * k + 1] = valueAt((k + 1 - INSIDE) / knots) - table[2 * k]!;
  }
  table[2 * knots] = valueAt(1);
  return table;
}

/** Knots in a pair table. */
export function knotsOf(table: Float32Array): number {
  return table.length / 2 - 1;
}
