/** a · b, value by value. A loop: the map of a typed array calls a function for each of its values. */
export function productOf(a: Float32Array, b: Float32Array): Float32Array<ArrayBuffer> {
  const out = new Float32Array(a.length);
  for (let i = 0; i < out.length; i++) out[i] = a[i]! * b[i]!;
  return out;
}
