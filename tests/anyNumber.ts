import fc from "fast-check";

/**
 * Any number of a range: mostly spread evenly over it, now and then an end, or one drawn by its bits, which is as good as always among the
 * smallest there are.
 */
export function anyNumber(min: number, max: number): fc.Arbitrary<number> {
  return fc.oneof(
    { weight: 6, arbitrary: fc.integer({ min: 0, max: 1_000_000 }).map((k) => min + (k / 1_000_000) * (max - min)) },
    { weight: 1, arbitrary: fc.double({ min, max, noNaN: true }) },
    { weight: 1, arbitrary: fc.constantFrom(min, max) },
  );
}
