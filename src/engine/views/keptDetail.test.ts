import fc from "fast-check";
import { expect, test } from "vitest";
import { enlarged } from "@/core/view/enlarge";
import { KeptDetail } from "./keptDetail";

const sizes = fc.record({ width: fc.integer({ min: 1, max: 70 }), height: fc.integer({ min: 1, max: 40 }) });
const parts = fc.double({ min: 0.2, max: 1, noNaN: true });
const levels = (seed: number, { width, height }: { width: number; height: number }) =>
  Uint8ClampedArray.from({ length: 4 * width * height }, (_, i) => (i % 4 === 3 ? 255 : (Math.imul(i + seed, 2654435761) >>> 24) & 255));
const isSame = (a: Uint8ClampedArray, b: Uint8ClampedArray) => a.length === b.length && a.every((level, i) => level === b[i]);

/** Frames of any size, and smaller ones. */
const frames = fc.tuple(sizes, parts, fc.nat(1000)).map(([size, part, seed]) => {
  const small = { width: Math.max(1, Math.round(size.width * part)), height: Math.max(1, Math.round(size.height * part)) };
  return { size, small, seed };
});

test("where nothing has changed, what is laid over the smaller frame makes the whole one, to the bit", () => {
  fc.assert(
    fc.property(frames, ({ size, small, seed }) => {
      const [whole, smaller] = [levels(seed, size), levels(seed + 7, small)];
      const kept = new KeptDetail(small, size);
      kept.keep(whole, smaller);
      const out = new Uint8ClampedArray(whole.length);
      kept.lay(smaller, out);
      return isSame(out, whole);
    }),
  );
});

test("what is laid over another smaller frame is that one enlarged, with the detail that was kept", () => {
  fc.assert(
    fc.property(frames, ({ size, small, seed }) => {
      const [whole, smaller, other] = [levels(seed, size), levels(seed + 7, small), levels(seed + 99, small)];
      const kept = new KeptDetail(small, size);
      kept.keep(whole, smaller);
      const out = new Uint8ClampedArray(whole.length);
      kept.lay(other, out);
      const [before, after] = [enlarged(smaller, small, size), enlarged(other, small, size)];
      return isSame(
        out,
        Uint8ClampedArray.from(whole, (level, i) => after[i]! + level - before[i]!),
      );
    }),
  );
});

test("enlarged, an even slope stays even, and levels stay those of the ends beyond the middle of the last pixels", () => {
  const [from, to] = [
    { width: 8, height: 1 },
    { width: 32, height: 3 },
  ];
  const slope = Uint8ClampedArray.from({ length: 4 * 8 }, (_, i) => 32 * (i >> 2));
  const large = enlarged(slope, from, to);
  for (let y = 0; y < 3; y++)
    for (let x = 0; x < 32; x++) {
      const there = Math.min(Math.max(32 * ((x + 0.5) / 4 - 0.5), 0), 32 * 7);
      expect(Math.abs(large[4 * (32 * y + x)]! - there)).toBeLessThanOrEqual(0.75);
    }
});
