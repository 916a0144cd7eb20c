import type { Pass } from "@/core/passes/pass";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { packPath } from "@/core/brush/stroke";
import { CoreError } from "@/core/errors";
import { openGate, type Gate } from "@/core/gate/gate";
import { compilePlan, shownMaskById } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { PassSet, Plan } from "@/core/plan/plan";
import type { Region } from "@/core/region/region";
import { renderPicture } from "@/engine/node/renderPicture";
import { Stage } from "@/engine/stage/stage";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// A set with a mask: all its passes act through it, however they are rendered.

const folder = temporaryFolder();
const size = { width: 240, height: 160 };
const levels = colourful(size.width, size.height);
const layout = { file: join(folder, "levels"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, levels);

const REGIONS: Region[] = [
  {
    ...emptyRegion("oval", "Oval"),
    shapes: [{ id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.35, across: 0.3, down: 0.2, turnDeg: 0, inner: 0.05, outer: 0.05 }],
  },
  {
    ...emptyRegion("half", "Half"),
    fit: 0.01,
    shapes: [{ id: "g", combine: "add", kind: "gradient", from: { x: 0.3, y: 0.5 }, to: { x: 0.6, y: 0.5 }, twoSided: false }],
  },
];
const MIXED: Gate = { ...openGate(), source: "mixed", from: 4, to: 8, low: 2, high: 2 };
const pass = (id: string, move: Pass["move"], changed: Partial<Pass> = {}): Pass => ({
  ...restingPass(move.kind, id, id),
  move,
  ...changed,
});
const HARD = pass("hard", { kind: "contrast", around: 5, grade: 4, black: 0, white: 10 });
const RELIEF = pass("relief", { kind: "relief", fine: 0.5, medium: 0.8, broad: 0 });
const BURN = pass("burn", { kind: "edge-burn", stops: -1.5, x: 0, y: 0, begins: 0.2, straight: 0.2, onPaper: true });
const TINT = pass("tint", { kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.08 }], replaces: false });
const planOf = (passes: Pass[], set: Partial<PassSet> = {}): Plan => ({
  ...defaultPlan(),
  mix: { ...defaultPlan().mix, weights: { red: 0.6, green: 0.3, blue: 0.1 } },
  regions: REGIONS,
  sets: [{ id: "set", name: "Set", on: true, strength: 1, region: null, gate: null, ...set }],
  passes: passes.map((each) => ({ ...each, set: "set" })),
});
const stageOf = () => Stage.fromLevels(levels, size, SRGB_SPACE);
const tonesOf = (plan: Plan, stage = stageOf()) => {
  stage.update(compilePlan(plan), undefined);
  return stage.tonesAfter(plan.passes.length).slice();
};
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe("the mask of a set", () => {
  test("on passes without one of their own is as if each had it", () => {
    for (const mask of [{ region: "oval" }, { gate: MIXED }, { region: "half", gate: MIXED }]) {
      const ofSet = planOf([HARD, RELIEF, BURN], mask);
      const ofEach = planOf([HARD, RELIEF, BURN].map((each) => ({ ...each, ...mask })));
      expect(worst(tonesOf(ofSet), tonesOf(ofEach))).toBeLessThan(1e-6);
      expect(worst(tonesOf(ofSet), tonesOf(planOf([HARD, RELIEF, BURN])))).toBeGreaterThan(0.05);
    }
  });

  test("narrows what a pass has of its own: shares are multiplied, entering gates and repairs with them", () => {
    const stroke = {
      radius: 0.1,
      hardness: 0.5,
      flow: 1,
      pressure: "none" as const,
      erase: false,
      path: packPath([
        { x: 0.02, y: 0.05, pressure: 1 },
        { x: 0.6, y: 0.35, pressure: 1 },
      ]),
    };
    const own: Partial<Pass>[] = [
      { region: "half" },
      { gate: { ...MIXED, source: "entering" } },
      { gate: { ...MIXED, source: "entering", blur: 0.02 } },
      { gate: { ...MIXED, source: "entering", repair: [stroke] } },
      { region: "half", gate: { ...MIXED, source: "red" } },
    ];
    for (const mask of own) {
      const [alone, both] = [planOf([{ ...RELIEF, ...mask }]), planOf([{ ...RELIEF, ...mask }], { region: "oval" })];
      const stage = stageOf();
      const [before, free, made] = [tonesOf(planOf([])), tonesOf(alone), tonesOf(both, stage)];
      const oval = stage.mask(shownMaskById(both, "set")!.shown.mask!);
      let far = 0;
      for (let i = 0; i < made.length; i++) {
        // Where the set's mask is full or none the pass is as it is alone, or not there.
        if (oval[i] === 1) far = Math.max(far, Math.abs(made[i]! - free[i]!));
        if (oval[i] === 0) far = Math.max(far, Math.abs(made[i]! - before[i]!));
      }
      expect(far).toBeLessThan(1e-6);
      expect(worst(made, free)).toBeGreaterThan(0.01);
    }
  });

  test("may look at the whole picture where that of a pass within it does not, and is laid anew when it changes", () => {
    const narrowed = (region: string) => planOf([{ ...RELIEF, region: "oval" }], { region });
    const stage = stageOf();
    const [one, other] = [tonesOf(narrowed("half"), stage), tonesOf(narrowed("oval"), stage)];
    expect(worst(one, other)).toBeGreaterThan(0.01);
    expect(worst(one, tonesOf(narrowed("half")))).toBe(0);
    expect(worst(other, tonesOf(narrowed("oval")))).toBe(0);
    const ofBoth = planOf([{ ...RELIEF, region: "half" }], { region: "oval" });
    expect(worst(one, tonesOf(ofBoth))).toBeLessThan(1e-6);
  });

  test("is shown, and written as a file, for itself; and a pass's within it", async () => {
    const plan = planOf([HARD, { ...RELIEF, gate: MIXED }], { region: "oval" });
    const stage = stageOf();
    stage.update(compilePlan(plan), { first: 0, end: 2 });
    const [ofSet, ofPass] = [stage.shownMask(shownMaskById(plan, "set")!.shown), stage.shownMask(shownMaskById(plan, "relief")!.shown)];
    const file = async (maskOf: string) =>
      Float32Array.from(
        (await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, maskOf })).levels,
        (level) => level / 65535,
      );
    expect(worst(await file("set"), ofSet)).toBeLessThan(2e-3);
    expect(worst(await file("relief"), ofPass)).toBeLessThan(2e-3);
    expect(Math.max(...ofSet)).toBe(1);
    ofPass.forEach((share, i) => expect(share).toBeLessThanOrEqual(ofSet[i]! + 1e-6));
    await expect(file("nobody")).rejects.toBeInstanceOf(CoreError);
  });

  test("is mended in one place: inverted, all of its passes turn to the other side", () => {
    const plan = planOf([HARD, BURN], { region: "oval" });
    const turned = { ...plan, regions: plan.regions.map((region) => (region.id === "oval" ? { ...region, invert: true } : region)) };
    const [all, none] = [tonesOf(planOf([HARD, BURN])), tonesOf(planOf([]))];
    const stage = stageOf();
    const [made, other] = [tonesOf(plan, stage), tonesOf(turned)];
    const oval = stage.mask(shownMaskById(plan, "set")!.shown.mask!);
    let far = 0;
    for (let i = 0; i < made.length; i++) {
      if (oval[i] === 1) far = Math.max(far, Math.abs(made[i]! - all[i]!), Math.abs(other[i]! - none[i]!));
      if (oval[i] === 0) far = Math.max(far, Math.abs(made[i]! - none[i]!), Math.abs(other[i]! - all[i]!));
    }
    expect(far).toBeLessThan(1e-6);
  });
});

test("bench, part and export agree, colour laid through it too, before the mix and after", async () => {
  const warm: Pass = { ...pass("warm", { kind: "balance", mired: 60, tint: 0 }), set: "before" };
  const after = planOf([HARD, { ...RELIEF, gate: { ...MIXED, source: "entering" } }, TINT], { region: "half", gate: MIXED });
  const plan: Plan = {
    ...after,
    sets: [...after.sets, { id: "before", name: "Before", on: true, strength: 1, region: "oval", gate: { ...MIXED, from: 5 } }],
    passes: [warm, ...after.passes],
  };
  const stage = stageOf();
  const tones = tonesOf(plan, stage);
  const { levels: grey } = await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout });
  const { levels: banded } = await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, bandPixels: 700 });
  expect(worst(grey, banded)).toBe(0);
  const { levels: colour } = await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, space: "srgb" });
  const chroma = stage.chromaAfter(4)!;
  const half = stage.mask(shownMaskById(plan, "set")!.shown.mask!);
  let coloured = 0;
  for (let i = 0; i < half.length; i++) {
    if (half[i] === 0) expect([chroma.a[i], chroma.b[i]]).toEqual([0, 0]);
    else coloured++;
  }
  expect(coloured).toBeGreaterThan(1000);
  expect(colour.length).toBe(3 * grey.length);
  const [x, y, width, height] = [60, 30, 90, 70];
  const cut = Uint16Array.from({ length: 3 * width * height }, (_, i) => {
    const pixel = Math.floor(i / 3);
    return levels[3 * ((y + Math.floor(pixel / width)) * size.width + x + (pixel % width)) + (i % 3)]!;
  });
  const part = Stage.fromLevels(cut, { width, height }, SRGB_SPACE, { place: { x, y, whole: size } });
  part.update(compilePlan(plan), undefined, { bases: stage.bases() });
  const some = part.tonesAfter(4);
  for (let i = 0; i < some.length; i++) expect(some[i]).toBeCloseTo(tones[(y + Math.floor(i / width)) * size.width + x + (i % width)]!, 5);
});
