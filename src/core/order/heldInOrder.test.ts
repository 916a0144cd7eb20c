import fc from "fast-check";
import { expect, test } from "vitest";
import { changesInOrder, heldInOrder } from "./heldInOrder";
import { anyNumber } from "../../../tests/anyNumber";

const even = (count: number) => Float64Array.from({ length: count }, (_, i) => i);
const falls = (count: number, fall = 1) => new Float64Array(count - 1).fill(fall);

test("a rise waits for what lies above it, a drop for what lies below; what stays, stays", () => {
  expect([...heldInOrder(Float64Array.of(5, 5, 5, 0, 0), falls(5))]).toEqual([3, 2, 1, 0, 0]);
  expect([...heldInOrder(Float64Array.of(0, 0, -5, -5, -5), falls(5))]).toEqual([0, 0, -1, -2, -3]);
});

test("changes that keep the order come back as they are", () => {
  const changes = Float64Array.of(0, 0.9, 0.5, -0.4, 0);
  expect(heldInOrder(changes, falls(5))).toEqual(changes);
});

test("any changes come out in order, nearer to nothing or as they were, and as large as the order allows", () => {
  const change = anyNumber(-30, 30);
  fc.assert(
    fc.property(fc.array(change, { minLength: 2, maxLength: 30 }), (drawn) => {
      const held = heldInOrder(Float64Array.from(drawn), falls(drawn.length));
      held.forEach((kept, i) => {
        const wanted = drawn[i]!;
        expect(kept * wanted).toBeGreaterThanOrEqual(0);
        expect(Math.abs(kept)).toBeLessThanOrEqual(Math.abs(wanted) + 1e-12);
        if (i > 0) expect(i + kept).toBeGreaterThanOrEqual(i - 1 + held[i - 1]! - 1e-8);
        // By the definition: no other place, on the way it moves, is passed.
        const dropped = (j: number) => Math.max(...drawn.slice(0, j + 1).map((other, k) => Math.min(other, 0) - (j - k)));
        const bound = wanted > 0 ? Math.min(...drawn.slice(i).map((other, k) => k + (other > 0 ? other : dropped(i + k)))) : -dropped(i);
        expect(Math.abs(kept)).toBeCloseTo(Math.min(Math.abs(wanted), bound), 9);
      });
    }),
    { seed: 141 },
  );
});

test("a curve that does not keep the order itself is not held", () => {
  const places = even(4);
  const changes = Float64Array.of(3, 1, -1, -3);
  expect(changesInOrder(places, Float64Array.of(3, 2, 1, 0), changes)).toBe(changes);
});

test("a curve that brings many to one place but for its last digit is held as one that brings them there", () => {
  const places = even(4);
  const changes = Float64Array.of(3, 2, 1, -3);
  expect([...changesInOrder(places, Float64Array.of(3, 3 - 1e-15, 3, 3 - 1e-15), changes)]).not.toEqual([...changes]);
});
