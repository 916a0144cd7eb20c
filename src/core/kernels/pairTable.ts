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

/** Knots in a pair table. */
export function knotsOf(table: Float32Array): number {
  return table.length / 2 - 1;
}
