import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { likeness, type LabPicture } from "./likeness";
import { wayFrom } from "./nearerPlace";
import { reachable } from "./reachable";
import type { LikenessShape, Point } from "./region";

const width = 60;
const height = 40;
const size = { width, height };

/** A picture of one colour where it is said, and of another elsewhere. */
function pictureOf(isMeant: (x: number, y: number) => boolean): LabPicture {
  const plane = (inside: number, outside: number) =>
    Float32Array.from({ length: width * height }, (_, i) => (isMeant(i % width, Math.floor(i / width)) ? inside : outside));
  return { ...size, lightness: plane(0.6, 0.62), a: plane(0.1, -0.05), b: plane(0.02, 0.02) };
}
const place = (x: number, y: number): Point => ({ x: (x + 0.5) / width, y: (y + 0.5) / width });
const shape: LikenessShape = {
  id: "l",
  combine: "add",
  kind: "likeness",
  touched: [place(10, 20)],
  not: [],
  tolerance: 0.06,
  connected: true,
  edges: "tone",
  apart: "place",
};
const at = (like: Float32Array, x: number, y: number) => like[y * width + x]!;

// Two patches of one colour, apart, on a ground of another.
const isLeft = (x: number, y: number) => y >= 10 && y < 30 && x >= 5 && x < 20;
const isRight = (x: number, y: number) => y >= 10 && y < 30 && x >= 40 && x < 55;
const apart = pictureOf((x, y) => isLeft(x, y) || isRight(x, y));

describe.each(["colour", "place"] as const)("a likeness, what is taken away told by %s", (told) => {
  const own = { ...shape, apart: told };
  test("takes the touched patch, whole and alone", () => {
    const like = likeness(apart, own);
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) expect([x, y, at(like, x, y)]).toEqual([x, y, isLeft(x, y) ? 1 : 0]);
  });
  test("everywhere takes the other patch too, unless that is what is not meant", () => {
    const everywhere = likeness(apart, { ...own, connected: false });
    expect([at(everywhere, 10, 20), at(everywhere, 45, 20), at(everywhere, 30, 20)]).toEqual([1, 1, 0]);
    const ground = likeness(apart, { ...own, connected: false, tolerance: 0.4, not: [place(30, 5)] });
    expect(at(ground, 10, 20)).toBe(1);
    expect(at(ground, 30, 5)).toBe(0);
  });
  test("touched nowhere, or outside the picture, it is nothing", () => {
    for (const touched of [[], [{ x: 3, y: 3 }]]) expect(Math.max(...likeness(apart, { ...own, touched }))).toBe(0);
  });
});

describe("what hangs together", () => {
  test("by a thread does not count, by a broad bridge it does", () => {
    const joined = (half: number) => pictureOf((x, y) => isLeft(x, y) || isRight(x, y) || (Math.abs(y - 20) <= half && x >= 20 && x < 40));
    const [thread, bridge] = [likeness(joined(0), shape), likeness(joined(4), shape)];
    expect([at(thread, 10, 20), at(thread, 45, 20)]).toEqual([1, 0]);
    expect([at(bridge, 10, 20), at(bridge, 30, 20), at(bridge, 45, 20), at(bridge, 54, 29)]).toEqual([1, 1, 1, 1]);
  });
  test("what is touched itself is taken however narrow it is", () => {
    const line = pictureOf((x, y) => y === 20 && x >= 5 && x < 50);
    const like = likeness(line, { ...shape, touched: [place(10, 20), place(12, 20)] });
    expect([at(like, 10, 20), at(like, 12, 20), at(like, 10, 21)]).toEqual([1, 1, 0]);
  });
  test("is as wide at any size", () => {
    const broad = { width: 640, height: 480 };
    // Two halves joined by a bridge of so many pixels.
    const joined = (pixels: number) =>
      Float32Array.from({ length: 640 * 480 }, (_, i) => {
        const [x, y] = [i % 640, Math.floor(i / 640)];
        return x < 200 || x >= 440 || (y >= 240 && y < 240 + pixels) ? 1 : 0;
      });
    const far = (pixels: number) => reachable(joined(pixels), broad, [100 * 640 + 100])[240 * 640 + 500]!;
    expect([far(4), far(5)]).toEqual([0, 1]);
  });
  test("is where a probe gets to, and what lies beside its way: by brute force", () => {
    const cells = fc.array(fc.boolean(), { minLength: 24 * 16, maxLength: 24 * 16 });
    fc.assert(
      fc.property(cells, fc.nat(24 * 16 - 1), (noise, seed) => {
        const small = { width: 24, height: 16 };
        // Blotches, not grains, or no probe gets anywhere.
        const isFull = (i: number) => noise[Math.floor(i / 48) * 24 + Math.floor((i % 24) / 2)] || noise[i % 7] === true;
        const share = Float32Array.from({ length: 24 * 16 }, (_, i) => (isFull(i) ? 1 : 0));
        const found = reachable(share, small, [seed]);
        const within = (i: number, reach: number, test: (j: number) => boolean, all: boolean) => {
          for (let y = -reach; y <= reach; y++)
            for (let x = -reach; x <= reach; x++) {
              const [cx, cy] = [(i % 24) + x, Math.floor(i / 24) + y];
              if (cx >= 0 && cy >= 0 && cx < 24 && cy < 16 && test(cy * 24 + cx) !== all) return !all;
            }
          return all;
        };
        const isWide = (i: number) =>
          share[i] === 1 && (within(i, 1, (j) => share[j] === 1, true) || within(i, 1, (j) => j === seed, false));
        const way = new Set(isWide(seed) ? [seed] : []);
        for (const i of way) {
          const beside = [i % 24 > 0 ? i - 1 : -1, i % 24 < 23 ? i + 1 : -1, i - 24, i + 24];
          for (const next of beside) if (next >= 0 && next < 384 && isWide(next)) way.add(next);
        }
        found.forEach((level, i) => {
          if (way.has(i)) expect(level).toBe(1);
          else if (share[i] === 0 || !within(i, 2, (j) => way.has(j), false)) expect(level).toBe(0);
          else expect(level === 0 || level === 1).toBe(true);
        });
      }),
      { numRuns: 150 },
    );
  });
});

describe("what is taken away", () => {
  const one = pictureOf((_, y) => y >= 10 && y < 30);
  const taken = { ...shape, not: [place(50, 20), place(52, 20)] };
  test("of one even colour is what lies nearer to it than to what is meant, softly, and nothing at the touched place", () => {
    for (const connected of [true, false]) {
      const like = likeness(one, { ...taken, connected });
      expect([at(like, 10, 20), at(like, 50, 20), at(like, 58, 20)]).toEqual([1, 0, 0]);
      expect(at(like, 30, 20)).toBeCloseTo(0.5, 1);
      for (let x = 10; x < 50; x++) expect(at(like, x + 1, 20)).toBeLessThanOrEqual(at(like, x, 20) + 1e-6);
    }
  });
  test("everywhere, it is that patch and no other of its colour", () => {
    const isBelow = (x: number, y: number) => y >= 34 && x >= 5 && x < 55;
    const three = pictureOf((x, y) => isLeft(x, y) || isRight(x, y) || isBelow(x, y));
    const like = likeness(three, { ...shape, connected: false, not: [place(45, 20)] });
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) expect([x, y, at(like, x, y)]).toEqual([x, y, isLeft(x, y) || isBelow(x, y) ? 1 : 0]);
  });
  test("cuts off what hung together by it alone", () => {
    // Left and right are joined by a bridge, of which the middle is of a colour of its own.
    const lightness = one.lightness.map((level, i) => (i % width >= 25 && i % width < 35 ? level + 0.06 : level));
    const like = (not: Point[]) => likeness({ ...one, lightness }, { ...shape, not });
    expect(at(like([]), 50, 20)).toBe(1);
    const cut = like([place(30, 20)]);
    expect([at(cut, 10, 20), at(cut, 30, 20), at(cut, 50, 20)]).toEqual([1, 0, 0]);
  });
});

test("the shortest way is the shortest of all ways: by relaxing until nothing changes", () => {
  const arbitrary = fc.record({
    open: fc.array(fc.boolean(), { minLength: 48, maxLength: 48 }),
    levels: fc.array(fc.double({ min: 0, max: 0.1, noNaN: true }), { minLength: 48, maxLength: 48 }),
    seeds: fc.array(fc.nat(47), { minLength: 1, maxLength: 3 }),
  });
  fc.assert(
    fc.property(arbitrary, ({ open, levels, seeds }) => {
      const change = (from: number, to: number) => Math.abs(levels[from]! - levels[to]!);
      const found = wayFrom(seeds, { width: 8, height: 6 }, (i) => open[i]!, change);
      const length = Array.from({ length: 48 }, (_, i) => (seeds.includes(i) ? 0 : Infinity));
      for (let changed = true; changed;) {
        changed = false;
        for (let i = 0; i < 48; i++) {
          const beside = [i % 8 > 0 ? i - 1 : -1, i % 8 < 7 ? i + 1 : -1, i - 8, i + 8].filter((j) => j >= 0 && j < 48);
          for (const j of beside) {
            const through = length[j]! + 1.28 / 8 + change(j, i);
            if (open[i] && through < length[i]! - 1e-9) [length[i], changed] = [through, true];
          }
        }
      }
      found.forEach((way, i) => (length[i] === Infinity ? expect(way).toBe(Infinity) : expect(way).toBeCloseTo(length[i]!, 5)));
    }),
  );
});
