import type { Pass } from "@/core/passes/pass";
import { expect, test } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { RoughFrames } from "@/engine/views/roughFrames";
import { Source } from "@/engine/source/source";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";
import { colourful } from "../madePictures";

// Frames under a moving hand against the whole ones they stand for.

const there = { width: 1500, height: 1000 };
const size = { width: 500, height: 333 };
/** Patches of colour, edges, and texture down to single pixels. */
const levels = colourful(there.width, there.height).map((level, i) => {
  const [x, y] = [Math.floor(i / 3) % there.width, Math.floor(i / 3 / there.width)];
  const texture =
    1 + 0.15 * Math.sin(x / 1.7) * Math.cos(y / 2.3) + 0.1 * ((Math.imul(Math.floor(i / 3), 2654435761) >>> 16) / 65536 - 0.5);
  return Math.min(level * texture * (y > 500 ? 0.6 : 1), 65535);
});

const whole = Stage.fromLevels(levels, there, SRGB_SPACE).reducedTo(size);
const active = { first: 0, end: 1 };
const placement = (to: number): Pass => ({
  ...restingPass("placement", "p", "P"),
  move: {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to },
      { from: 10, to: 10 },
    ],
  },
});
const after: Pass[] = [
  { ...restingPass("relief", "r", "R"), move: { kind: "relief", fine: 0.5, medium: 0.4, broad: 0.3 } },
  restingPass("contrast-mask", "m", "M"),
];
const planOf = (besides: Partial<Plan>): Plan => ({ ...defaultPlan(), passes: [placement(5), ...after], ...besides });
const oval = (grade: number): Partial<Plan> => ({
  regions: [
    {
      ...emptyRegion("o", "O"),
      shapes: [{ id: "s", combine: "add", kind: "oval", x: 0.4, y: 0.3, across: 0.25, down: 0.2, turnDeg: 0, inner: 0.05, outer: 0.05 }],
    },
  ],
  passes: [
    { ...restingPass("contrast", "c", "C"), region: "o", move: { kind: "contrast", around: 5, grade, black: 0, white: 10 } },
    ...after,
  ],
});
const tint = (hueDeg: number): Partial<Plan> => ({
  passes: [
    { ...restingPass("tint", "t", "T"), move: { kind: "tint", points: [{ zone: 5, hueDeg, chroma: 0.06 }], replaces: false } },
    ...after,
  ],
});
const weights = (red: number): Partial<Plan> => ({ mix: { ...defaultPlan().mix, weights: { red, green: 1 - red, blue: 0 } } });

function levelsOff(a: Uint8ClampedArray, b: Uint8ClampedArray): { median: number; most: number } {
  const off = Array.from({ length: a.length / 4 }, (_, i) =>
    Math.max(...[0, 1, 2].map((c) => Math.abs(a[4 * i + c]! - b[4 * i + c]!))),
  ).sort((x, y) => x - y);
  return { median: off[off.length >> 1]!, most: off[Math.floor(0.95 * off.length)]! };
}

/** A frame of the second plan as it is where the detail of the first was kept, and both whole. */
function movedFrom(from: Partial<Plan>, to: Partial<Plan>, scale: number) {
  const small = { width: Math.round(size.width * scale), height: Math.round(size.height * scale) };
  const smaller = new Stage(whole.source.reducedPlainly(small));
  const show = (stage: Stage, plan: Partial<Plan>) => stage.render(compilePlan(planOf(plan)), active, FINISHED).slice();
  const [before, moved] = [show(whole, from), show(whole, to)];
  const rough = new RoughFrames();
  rough.keep("a strand", scale, { ...size, rgba: before }, { ...small, rgba: show(smaller, from) });
  return { before, moved, rough: rough.complete(show(smaller, to), undefined), same: rough.complete(show(smaller, from), undefined) };
}

test.each([
  ["a strand by a zone", { passes: [placement(5), ...after] }, { passes: [placement(6), ...after] }, 10],
  ["a weight of the mix", weights(0.3), weights(0.8), 3],
  ["contrast in an oval", oval(2), oval(4), 0],
  ["the hue of a tint", tint(40), tint(90), 3],
] as const)("a frame a quarter to half as long comes close to the whole one: %s", (_, from, to, leastMoved) => {
  for (const scale of [1 / 2, 1 / 4]) {
    const { before, moved, rough, same } = movedFrom(from as Partial<Plan>, to as Partial<Plan>, scale);
    expect(levelsOff(before, moved).most).toBeGreaterThan(5);
    expect(levelsOff(before, moved).median).toBeGreaterThanOrEqual(leastMoved);
    const off = levelsOff(rough, moved);
    expect([scale, off.median <= 1, off.most <= 6]).toEqual([scale, true, true]);
    expect(same.every((level, i) => level === before[i])).toBe(true);
  }
});

test.each([
  ["a strand", { passes: [placement(5), ...after] }, { passes: [placement(6), ...after] }],
  ["contrast in an oval", oval(2), oval(4)],
] as const)("so does a frame of a part, with what it needs of the whole: %s", (_, from, to) => {
  const place = { x: 301, y: 187, whole: there };
  const part = { width: 420, height: 331 };
  const cut = new Uint16Array(3 * part.width * part.height);
  for (let y = 0; y < part.height; y++) {
    const first = 3 * ((place.y + y) * there.width + place.x);
    cut.set(levels.subarray(first, first + 3 * part.width), 3 * y * part.width);
  }
  const fine = new Stage(Source.fromLevels(cut, part, SRGB_SPACE, { place }));
  const small = { width: 210, height: 166 };
  const smaller = new Stage(fine.source.reducedPlainly(small));
  const show = (stage: Stage, plan: Partial<Plan>) => {
    const compiled = compilePlan(planOf(plan));
    whole.update(compiled, active);
    return stage.render(compiled, active, FINISHED, { bases: whole.bases() }).slice();
  };
  const [before, moved] = [show(fine, from as Partial<Plan>), show(fine, to as Partial<Plan>)];
  const rough = new RoughFrames();
  rough.keep("a strand", 0.5, { ...part, rgba: before }, { ...small, rgba: show(smaller, from as Partial<Plan>) });
  const off = levelsOff(rough.complete(show(smaller, to as Partial<Plan>), undefined), moved);
  expect(levelsOff(before, moved).most).toBeGreaterThan(5);
  expect([off.median <= 1, off.most <= 6]).toEqual([true, true]);
});

test("frames are whole until the detail of one is kept for what the hand moves, at the size it is shown", () => {
  const rough = new RoughFrames();
  const slow = (doing: string) => [1, 2, 3, 4].map(() => (rough.scaleFor(doing, size), rough.took(1, 26, doing))).at(-1);
  expect(slow("a strand")).toBe(0.5);
  expect(rough.scaleFor("a strand", size)).toBe(1);
  const small = { width: 250, height: 167 };
  const blank = ({ width, height }: typeof size) => ({ width, height, rgba: new Uint8ClampedArray(4 * width * height) });
  rough.keep("a strand", 0.5, blank(size), blank(small));
  expect(rough.scaleFor("a strand", size)).toBe(0.5);
  expect(rough.scaleFor("a strand", { width: 600, height: 400 })).toBe(1);
  expect(rough.scaleFor("another strand", size)).toBe(1);
  expect(slow("another strand")).toBe(0.5);
  expect(rough.scaleFor("another strand", size)).toBe(1);
});
