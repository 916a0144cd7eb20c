import { expect, test } from "vitest";
import { Pace } from "./pace";

/**
 * A hand that moves over a plan whose whole frames take so long, frame after frame, and all frames so much besides; returns how large each
 * was.
 */
function moves(pace: Pace, count: number, wholeMs: (frame: number) => number, doing = "a strand", besidesMs = 0): number[] {
  return Array.from({ length: count }, (_, frame) => {
    const scale = pace.scaleFor(doing);
    pace.took(scale, wholeMs(frame) * scale ** 2 + besidesMs);
    return scale;
  });
}

test("frames that keep up with the hand are whole", () => {
  expect(new Set(moves(new Pace(), 40, () => 6.9))).toEqual(new Set([1]));
});

test.each([
  [16, 1 / 2, 4],
  [26, 1 / 2, 4],
  [45, 3 / 8, 2],
  [140, 1 / 4, 2],
  [900, 1 / 4, 2],
])("where a whole one takes %i ms, a moving hand soon has frames of %f of the length, and no others from then on", (ms, scale, whole) => {
  const scales = moves(new Pace(), 40, () => ms);
  expect(scales.slice(0, whole)).toEqual(Array(whole).fill(1));
  expect(new Set(scales.slice(whole))).toEqual(new Set([scale]));
});

test("what looks at each pixel by itself is whole for twice as long", () => {
  const pace = new Pace();
  const drag = (ms: number) =>
    Array.from({ length: 20 }, () => {
      const scale = pace.scaleFor(`a strand of ${ms}`, true);
      pace.took(scale, ms * scale ** 2);
      return scale;
    });
  expect(new Set(drag(13))).toEqual(new Set([1]));
  expect(drag(30).at(-1)).toBe(1 / 2);
});

test("single slow frames are not heeded", () => {
  expect(new Set(moves(new Pace(), 60, (frame) => (frame % 3 === 0 ? 6 : 25)))).toEqual(new Set([1]));
});

test("another movement begins with whole frames; the next of the same kind goes on as the last one ended", () => {
  const pace = new Pace();
  moves(pace, 20, () => 26);
  expect(pace.scaleFor("a strand")).toBe(0.5);
  expect(new Set(moves(pace, 20, () => 3, "another strand"))).toEqual(new Set([1]));
});

test("a whole frame where the hand rests tells whether they may all be whole", () => {
  const pace = new Pace();
  moves(pace, 20, () => 26);
  pace.took(1, 6);
  expect(pace.scaleFor("a strand")).toBe(0.5);
  pace.took(1, 5);
  expect(pace.scaleFor("a strand")).toBe(1);
});

test("what has become quick is whole again after a while", () => {
  const pace = new Pace();
  moves(pace, 20, () => 26);
  expect(moves(pace, 40, () => 4).slice(20)).toEqual(Array(20).fill(1));
});

test.each([
  ["on the border of the budget", (frame: number) => (frame % 20 < 10 ? 7.5 : 6.5), 0],
  ["where smaller frames take longer than their pixels tell", (frame: number) => 24 + (frame % 3), 3],
  ["where frames take now more, now less", (frame: number) => 26 * (1 + 0.4 * Math.sin(frame)), 0],
])("sizes do not go to and fro %s", (_, wholeMs, besidesMs) => {
  const scales = moves(new Pace(), 300, wholeMs, "a strand", besidesMs);
  expect(scales.filter((scale, i) => i > 0 && scale !== scales[i - 1]).length).toBe(1);
});
