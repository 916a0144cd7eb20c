import type { ExposureStroke } from "@/core/steps/placedStops";
import { WHOLE_FRAME } from "@/core/frame/frame";
import fc from "fast-check";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { EXPORT_FORMATS, EXPORT_FORMAT_FACTS, exportNoise, ExportSettings } from "@/contracts/exportSettings";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { packPath } from "@/core/brush/stroke";
import { openGate, type Gate } from "@/core/gate/gate";
import { compilePlan, maskOf } from "@/core/plan/compilePlan";
import { reachTable } from "@/core/steps/reach";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { ExposureMove } from "@/core/passes/exposure/move";
import type { Plan } from "@/core/plan/plan";
import { areaReduceRows } from "@/core/spatial/areaReduce";
import { greyProfile } from "@/core/formats/writtenProfile";
import { readIccProfile } from "@/core/formats/readIccProfile";
import { lookTable } from "@/core/view/toneTables";
import { HISTOGRAM_BINS } from "@/core/zones/zoneShares";
import { decodePicture } from "@/engine/node/decodePicture";
import { embedInPng, embedInTiff } from "@/engine/node/embed";
import { preparePicture, readPrepared } from "@/engine/node/preparePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { rowRenderer } from "@/engine/output/renderRows";
import { Stage } from "@/engine/stage/stage";
import { anyPlan } from "../anyPlan";
import { colourful, rgb16, rgb8, to8, wedge16, withProfile } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const threadFile = pathToFileURL(join("dist", "renderThread.mjs"));

/** A plan that uses everything there is. */
function fullPlan(): Plan {
  const plan = defaultPlan();
  plan.mix.weights = { red: 0.9, green: 0.4, blue: -0.3 };
  plan.mix.hueKnots = [
    { hueDeg: 30, stops: 0.8 },
    { hueDeg: 120, stops: -0.4 },
    { hueDeg: 250, stops: -1.2 },
  ];
  plan.passes[0]!.move = {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 3, to: 2.5 },
      { from: 7, to: 7.5 },
      { from: 10, to: 10 },
    ],
  };
  plan.passes.push({ ...structuredClone(plan.passes[0]!), id: "second", strength: 0.6 });
  plan.passes.push({
    id: "third",
    name: "Grade 3",
    on: true,
    strength: 0.8,
    blend: "soft-light",
    region: null,
    gate: null,
    zonesOff: [],
    set: null,
    move: { kind: "contrast", around: 4, grade: 3, black: 0.3, white: 9.8 },
  });
  plan.passes.push({
    ...restingPass("contrast-mask", "fourth", "Mask"),
    zonesOff: [9, 10],
    move: { kind: "contrast-mask", radius: 0.05, density: 0.4, edges: true },
  });
  plan.passes.push({
    ...restingPass("contrast-mask", "fifth", "Mask 2"),
    blend: "overlay",
    strength: 0.5,
    move: { kind: "contrast-mask", radius: 0.02, density: 0.3, edges: false },
  });
  plan.passes.push({ ...structuredClone(plan.passes[0]!), id: "sixth", zonesOff: [4, 5], set: "last" });
  // Masks of every kind: shapes, brush, likeness, softened, fitted; gates on every source, blurred, limited to hues.
  const oval = {
    id: "oval",
    combine: "add",
    kind: "oval",
    x: 0.4,
    y: 0.3,
    across: 0.3,
    down: 0.2,
    turnDeg: 20,
    inner: 0.05,
    outer: 0.1,
  } as const;
  const path = packPath([
    { x: 0.1, y: 0.1, pressure: 1 },
    { x: 0.8, y: 0.5, pressure: 0.4 },
  ]);
  plan.regions = [
    {
      id: "drawn",
      name: "Drawn",
      shapes: [
        oval,
        {
          id: "strokes",
          combine: "subtract",
          kind: "brush",
          beneath: true,
          x: 0.01,
          y: 0,
          strokes: [{ radius: 0.06, hardness: 0.3, flow: 0.5, pressure: "both", erase: false, path }],
        },
        { id: "fall", combine: "intersect", kind: "gradient", from: { x: 0.5, y: 0 }, to: { x: 0.5, y: 0.8 }, twoSided: false },
      ],
      soften: 0,
      fit: 0,
      invert: false,
      density: 0.9,
    },
    {
      id: "found",
      name: "Found",
      shapes: [
        {
          id: "like",
          combine: "add",
          kind: "likeness",
          touched: [{ x: 0.2, y: 0.2 }],
          not: [{ x: 0.9, y: 0.5 }],
          tolerance: 0.2,
          connected: true,
          edges: "colour",
          apart: "place",
        },
        { ...oval, combine: "add" },
      ],
      soften: 0.02,
      fit: 0.03,
      invert: true,
      density: 1,
    },
  ];
  const gate: Gate = { ...openGate(), from: 3, to: 7, low: 3, high: 3 };
  plan.passes[0]!.region = "drawn";
  plan.passes[0]!.gate = { ...gate, source: "own", hue: { centreDeg: 40, widthDeg: 60, shoulderDeg: 60, invert: false } };
  plan.passes[1]!.gate = { ...gate, blur: 0.03 };
  plan.passes[3]!.region = "found";
  plan.passes[3]!.gate = { ...gate, repair: [{ radius: 0.1, hardness: 0.5, flow: 0.6, pressure: "none", erase: false, path }] };
  plan.passes[2]!.gate = { ...gate, repair: [{ radius: 0.1, hardness: 0.5, flow: 0.6, pressure: "none", erase: true, path }] };
  plan.passes[4]!.gate = { ...gate, source: "blue", blur: 0.02, narrow: 1 };
  plan.passes[5]!.region = "drawn";
  plan.passes.push({
    ...restingPass("exposure", "seventh", "Dodge and burn"),
    region: "drawn",
    gate,
    strength: 1.2,
    move: {
      kind: "exposure",
      strokes: [false, true, false].map((burns, i) => ({
        radius: 0.1,
        hardness: 0.2,
        flow: 0.2,
        pressure: "none",
        erase: i === 2,
        burns,
        ceiling: 1,
        path,
      })),
      dodge: 1.5,
      burn: 0.8,
      flat: -0.3,
      soften: 0.02,
      limit: 0.8,
      zones: [0, 0, 0.1, 0.2, 0, 0, 0, -0.2, -0.1, 0, 0],
      endsHeld: true,
    },
  });
  plan.passes.push({
    ...restingPass("edge-burn", "eighth", "Edges"),
    region: "found",
    blend: "darken",
    move: { kind: "edge-burn", stops: -0.7, x: 0.1, y: -0.05, begins: 0.2, straight: 0.5, onPaper: true },
  });
  plan.passes.push({
    ...restingPass("relief", "ninth", "Relief"),
    region: "drawn",
    gate,
    move: { kind: "relief", fine: 0.5, medium: -0.4, broad: 0.8 },
  });
  plan.sets = [{ id: "last", name: "Last", on: true, strength: 1.5, region: null, gate: null }];
  return plan;
}

async function decodedFrom(name: string, bytes: Buffer) {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return decodePicture(path, `${path}.raw`);
}

const showing = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false } as const;

const largest = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  expect(a.length).toBe(b.length);
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
};

async function readGrey16(path: string): Promise<Uint16Array> {
  const { data } = await sharp(path)
    .toColourspace("grey16")
    .keepIccProfile()
    .raw({ depth: "ushort" })
    .toBuffer({ resolveWithObject: true });
  return new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
}

describe("a neutral 16-bit wedge through an empty plan", () => {
  const { levels, width, height } = wedge16();
  const sources: [string, () => Promise<Buffer>][] = [
    ["untagged.png", () => rgb16(levels, width, height).png().toBuffer()],
    ["untagged.tif", () => rgb16(levels, width, height).tiff({ compression: "lzw" }).toBuffer()],
    ["tagged.png", () => tagged("png", embedInPng)],
    ["tagged.tif", () => tagged("tiff", embedInTiff)],
  ];
  const grey = levels.filter((_, i) => i % 3 === 0);

  test.each(sources)("from %s comes out of a 16-bit export unchanged", async (name, make) => {
    const picture = await decodedFrom(`wedge-${name}`, await make());
    expect(picture.depth).toBe(16);
    if (name.startsWith("tagged")) expect(picture.space).not.toBe(SRGB_SPACE);
    const rendered = await renderPicture(picture, defaultPlan(), { depth: 16 });
    for (const format of ["tiff16", "png16"] as const) {
      const out = join(folder, `wedge-${name}.${EXPORT_FORMAT_FACTS[format].extension}`);
      await writePrint(rendered, ExportSettings.parse({ format }), out);
      const back = await readGrey16(out);
      expect(largest(back, grey)).toBeLessThanOrEqual(1);
      const lstar = (level: number) => 100 * luminanceToTone(toLinear(SRGB_CURVE, level / 65535));
      expect(Math.max(...Array.from(back, (level, i) => Math.abs(lstar(level) - lstar(grey[i]!))))).toBeLessThanOrEqual(0.01);
    }
  });

  /** The wedge with the decoder library's sRGB profile in it, put there without touching a level. */
  async function tagged(format: "png" | "tiff", embed: typeof embedInPng): Promise<Buffer> {
    const { icc } = await sharp(await rgb8(to8(levels), width, height).withIccProfile("srgb").png().toBuffer()).metadata();
    const path = join(folder, `tagging.${format}`);
    const pixels = rgb16(levels, width, height);
    await (format === "png" ? pixels.png() : pixels.tiff({ compression: "lzw" })).toFile(path);
    await embed(path, withProfile(icc!));
    return readFileSync(path);
  }
});

describe("what must not change a level", () => {
  const [W, H] = [331, 217]; // odd, so that bands end in the middle of everything
  const levels = colourful(W, H);
  const source = async () => decodedFrom("colourful.png", await rgb16(levels, W, H).png().toBuffer());

  test("band size, down to a single row at a time", async () => {
    const picture = await source();
    const whole = await renderPicture(picture, fullPlan(), { depth: 16 });
    for (const bandPixels of [1, 500, 4096, 1e6]) {
      expect(largest((await renderPicture(picture, fullPlan(), { depth: 16, bandPixels })).levels, whole.levels)).toBe(0);
    }
  });

  test("the number of threads, dither included", async () => {
    expect(existsSync(threadFile)).toBe(true); // npm run build:node makes it
    const picture = await source();
    for (const depth of [8, 16] as const) {
      const alone = await renderPicture(picture, fullPlan(), { depth });
      for (const threads of [1, 3])
        expect(largest((await renderPicture(picture, fullPlan(), { depth, threads, threadFile })).levels, alone.levels)).toBe(0);
    }
  });

  test("whether the page's worker or the server computes it", () => {
    const size = { width: W, height: H };
    const compiled = compilePlan(fullPlan());
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const shown = stage.render(compiled, { first: 0, end: 1 }, { ...showing, dithered: false });
    const out = new Uint16Array(W * H);
    const readRows = (y: number, rows: number) => levels.subarray(3 * y * W, 3 * (y + rows) * W);
    rowRenderer({ size, depth: 16, space: SRGB_SPACE, readRows }, compiled, { size, depth: 16 }, { bases: stage.bases() }).render(
      0,
      H,
      out,
    );
    const eight = Array.from(out, (level) => level / 257);
    // Rounded to 8 bits without dither: half a level, and the coarser table of the screen.
    expect(
      largest(
        eight,
        Array.from({ length: W * H }, (_, i) => shown[4 * i]!),
      ),
    ).toBeLessThan(0.52);
  });

  test.each(["likeness", "fit"])("a region that looks at the picture by its %s, and no gate that does", (looks) => {
    const size = { width: W, height: H };
    const { passes, regions } = fullPlan();
    const found = regions.find(({ id }) => id === "found")!;
    const region = looks === "fit" ? { ...found, shapes: found.shapes.slice(1) } : { ...found, fit: 0 };
    const plan = { ...defaultPlan(), regions: [region], passes: [{ ...passes[0]!, region: "found", gate: null }] };
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    stage.update(compilePlan(plan), undefined);
    const out = new Uint16Array(W * H);
    const readRows = (y: number, rows: number) => levels.subarray(3 * y * W, 3 * (y + rows) * W);
    const source = { size, depth: 16, space: SRGB_SPACE, readRows } as const;
    rowRenderer(source, compilePlan(plan), { size, depth: 16 }, { bases: stage.bases(), bandPixels: 4000 }).render(0, H, out);
    const tones = stage.tonesAfter(1);
    const apart = out.map((level, i) => Math.abs(level - Math.round(65535 * srgbEncode(toneToLuminance(tones[i]!)))));
    expect(Math.max(...apart)).toBeLessThanOrEqual(1);
  });

  test("painting point by point, taken back, gone on with elsewhere: every frame is what a fresh stage shows", () => {
    const size = { width: 200, height: 700 }; // several bands
    const picture = colourful(200, 700);
    const stage = Stage.fromLevels(picture, size, SRGB_SPACE);
    const { passes, regions } = fullPlan();
    const [placement, mask, exposure] = ["first", "fourth", "seventh"].map((id) => passes.find((pass) => pass.id === id) ?? passes[0]!);
    const way = Array.from({ length: 12 }, (_, i) => ({ x: 0.02 + 0.015 * i, y: 0.1 + 0.07 * i, pressure: 1 }));
    const stroke = (points: number, burns: boolean, erase = false): ExposureStroke => ({
      radius: 0.03,
      hardness: 0.4,
      flow: 0.5,
      pressure: "none",
      erase,
      burns,
      ceiling: 1,
      path: packPath(way.slice(0, points)),
    });
    const painted = [stroke(8, false), stroke(9, true)];
    const growing = (points: number[], burns: boolean, erase = false) => points.map((n) => [...painted, stroke(n, burns, erase)]);
    const states = [
      ...growing([1, 2, 5, 9, 12], false),
      painted,
      ...growing([3, 4, 12, 4], true),
      ...growing([2, 3, 7], true, true),
      [painted[1]!],
      painted,
    ];
    for (const change of [{}, { soften: 0.02 }, { limit: 0.3, region: "drawn" }]) {
      for (const [k, strokes] of states.entries()) {
        const { region = null, ...held } = change as { region?: string };
        const move = { ...exposure!.move, limit: null, soften: 0, ...held, strokes } as ExposureMove;
        const after = k % 5 === 4 ? [mask!, placement!] : [placement!];
        const plan = { ...defaultPlan(), regions, passes: [placement!, { ...exposure!, gate: null, region, move }, ...after] };
        // Now and then something else is in hand, or the mix is looked at.
        const active = k === 3 ? { first: 0, end: 1 } : k === 8 ? undefined : { first: 1, end: 2 };
        const fresh = Stage.fromLevels(picture, size, SRGB_SPACE);
        const shows = {
          ...showing,
          of: k === 7 ? "stops" : "print",
          exposed: { id: exposure!.id, placed: { by: "strokes", settings: move }, frame: WHOLE_FRAME },
        } as const;
        const [got, wanted] = [stage, fresh].map((each) => Buffer.from(each.render(compilePlan(plan), active, shows)));
        expect(Buffer.compare(got!, wanted!)).toBe(0);
        expect(stage.histograms()).toEqual(fresh.histograms());
        expect(stage.readPoint(40, 200)).toEqual(fresh.readPoint(40, 200));
      }
    }
  });

  test("going back and forth on the bench: any order of edits ends where a fresh stage does", () => {
    const size = { width: 64, height: 40 };
    const small = colourful(64, 40);
    const stage = Stage.fromLevels(small, size, SRGB_SPACE);
    fc.assert(
      fc.property(fc.array(fc.tuple(anyPlan(), fc.nat(4)), { minLength: 1, maxLength: 5 }), (steps) => {
        for (const [plan, pick] of steps) {
          const first = pick % Math.max(plan.passes.length, 1);
          const chosen = plan.passes.length ? { first, end: first + 1 } : undefined;
          const compiled = compilePlan(plan);
          const got = stage.render(compiled, chosen, showing);
          const fresh = Stage.fromLevels(small, size, SRGB_SPACE);
          expect(Buffer.compare(Buffer.from(got), Buffer.from(fresh.render(compiled, chosen, showing)))).toBe(0);
          expect(stage.histograms()).toEqual(fresh.histograms());
          expect(stage.readPoint(9, 9)).toEqual(fresh.readPoint(9, 9));
        }
      }),
      { seed: 81, numRuns: 40 },
    );
  });
});

test("burned edges give bare paper tone, or leave it bare, and both leave the middle", () => {
  const size = { width: 60, height: 40 };
  const paper = Stage.fromLevels(new Uint8Array(3 * 60 * 40).fill(255), size, SRGB_SPACE);
  const finished = (onPaper: boolean) => {
    const plan = defaultPlan();
    const move = { kind: "edge-burn", stops: -1, x: 0, y: 0, begins: 0.3, straight: 1, onPaper } as const;
    plan.passes = [{ ...restingPass("edge-burn", "edges", "Edges"), move }];
    paper.update(compilePlan(plan), undefined);
    return { corner: paper.readPoint(1, 1)!.finished, middle: paper.readPoint(30, 20)!.finished };
  };
  expect(finished(false)).toEqual({ corner: 1, middle: 1 });
  const { corner, middle } = finished(true);
  expect(middle).toBe(1);
  expect(Math.abs(corner - luminanceToTone(0.5))).toBeLessThan(0.005);
});

test("what each pass changes adds up to the print", () => {
  const size = { width: 60, height: 40 };
  const stage = () => Stage.fromLevels(to8(colourful(60, 40)), size, SRGB_SPACE);
  const plan = compilePlan(fullPlan());
  const changes = stage().changes(plan);
  expect(changes).toHaveLength(plan.passes.length);
  const [unprinted, printed] = [stage(), stage()];
  unprinted.update({ ...plan, passes: [] }, undefined);
  printed.update(plan, undefined);
  for (const [x, y] of [
    [5, 5],
    [30, 20],
    [50, 33],
  ] as const) {
    let sum = 0;
    for (const change of changes)
      for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += change[(y + dy) * 60 + x + dx]! / 9;
    expect(unprinted.readPoint(x, y)!.finished + sum).toBeCloseTo(printed.readPoint(x, y)!.finished, 5);
  }
});

test("a pass before the mix changes what is mixed of it, one after it what it says, however many stand between", () => {
  const plan = defaultPlan();
  const darker = { kind: "placement", strands: [0, 5, 10].map((from) => ({ from, to: from === 5 ? 4 : from })) } as const;
  const placements = Array.from({ length: 9 }, (_, i) => restingPass("placement", `rests-${i}`, "Rests"));
  const lit = { ...restingPass("scene-light", "lit", "Lit"), move: { kind: "scene-light", exposure: 0.7, shadows: 0, lights: 0 } as const };
  plan.passes = [lit, ...placements, { ...restingPass("placement", "burnt", "Burnt"), move: { ...darker, strands: [...darker.strands] } }];
  const size = { width: 30, height: 20 };
  const stage = () => Stage.fromLevels(to8(colourful(30, 20)), size, SRGB_SPACE);
  const changes = stage().changes(compilePlan(plan));
  const tonesOf = (passes: Plan["passes"]) => stage().mixedBy(compilePlan({ ...plan, passes })).tones;
  const [dark, light] = [tonesOf([]), tonesOf([lit])];
  changes[0]!.forEach((change, i) => expect(change).toBeCloseTo(light[i]! - dark[i]!, 6));
  expect(Math.max(...changes[0]!)).toBeGreaterThan(0.02);
  for (const change of changes.slice(1, -1)) expect(Math.max(...change.map(Math.abs))).toBe(0);
  expect(Math.min(...changes.at(-1)!)).toBeLessThan(-0.05);
});

test.each([0, 1, 2, 3, 4])("the mask of pass %i as a file is the mask on the bench, at full size and reduced", async (index) => {
  const [W, H] = [320, 240];
  const levels = colourful(W, H);
  const picture = await decodedFrom("masked.png", await rgb16(levels, W, H).png().toBuffer());
  const { levels: rendered } = await renderPicture(picture, fullPlan(), { depth: 16, maskOf: fullPlan().passes[index]!.id });
  const stage = Stage.fromLevels(levels, { width: W, height: H }, SRGB_SPACE);
  const plan = compilePlan(fullPlan());
  stage.update(plan, { first: index, end: index + 1 });
  const pass = fullPlan().passes[index]!;
  const plane = stage.shownMask({ mask: maskOf(fullPlan(), pass), reach: reachTable(pass) });
  expect(Math.max(...plane)).toBeGreaterThan(0.2);
  expect(Math.min(...plane)).toBeLessThan(0.8);
  expect(
    largest(
      Float32Array.from(rendered, (level) => level / 65535),
      plane,
    ),
  ).toBeLessThan(2e-3);
  const reduced = await renderPicture(picture, fullPlan(), { depth: 16, maskOf: fullPlan().passes[index]!.id, longEdge: 80 });
  const mean = (values: ArrayLike<number>) => Array.from(values).reduce((sum, value) => sum + value, 0) / values.length;
  expect(mean(reduced.levels) / 65535).toBeCloseTo(mean(plane), 2);
});

test("any valid plan on any picture gives levels in range, and as many as there are pixels", () => {
  fc.assert(
    fc.property(anyPlan(), fc.array(fc.integer({ min: 0, max: 65535 }), { minLength: 24, maxLength: 24 }), (plan, made) => {
      const size = { width: 4, height: 2 };
      const stage = Stage.fromLevels(Uint16Array.from(made), size, SRGB_SPACE);
      stage.update(compilePlan(plan), undefined);
      const { finished } = stage.histograms()!;
      expect(finished.length).toBe(HISTOGRAM_BINS);
      expect(finished.reduce((sum, count) => sum + count, 0)).toBe(8);
      for (let i = 0; i < 8; i++) {
        const tone = stage.readPoint(i % 4, i >> 2)!.finished;
        expect(tone >= -1e-6 && tone <= 1 + 1e-6).toBe(true);
      }
    }),
    { seed: 82, numRuns: 300 },
  );
});

test("the preview at a quarter agrees with the export reduced to a quarter", async () => {
  const [W, H] = [1280, 960]; // a preview smaller than 320 pixels is nobody's bench
  const levels = colourful(W, H);
  const quarter = { width: W / 4, height: H / 4 };
  const size = { width: W, height: H };
  const stage = Stage.fromLevels(levels, size, SRGB_SPACE).reducedTo(quarter);
  stage.update(compilePlan(fullPlan()), undefined);
  const picture = await decodedFrom("large.png", await rgb16(levels, W, H).png().toBuffer());
  const { levels: exported } = await renderPicture(picture, fullPlan(), { depth: 16 });
  const light = Float32Array.from(exported, (level) => toLinear(SRGB_CURVE, level / 65535));
  const reduced = areaReduceRows(light, 0, size, quarter, 0, quarter.height);
  const shown = stage.tonesAfter(fullPlan().passes.length);
  const differences = Array.from(reduced, (light, i) => Math.abs(luminanceToTone(light) - shown[i]!));
  differences.sort((a, b) => a - b);
  expect(differences.reduce((sum, d) => sum + d, 0) / differences.length).toBeLessThanOrEqual(0.002);
  expect(differences[Math.floor(0.999 * differences.length)]!).toBeLessThanOrEqual(0.01);
});

describe("exports", () => {
  const [W, H] = [120, 80];
  const picture = async () =>
    decodedFrom(
      "small.png",
      await rgb8(to8(colourful(W, H)), W, H)
        .png()
        .toBuffer(),
    );

  test.each(EXPORT_FORMATS)("%s carries the grey profile, the right depth, and the levels that were rendered", async (format) => {
    const { depth, extension } = EXPORT_FORMAT_FACTS[format];
    const rendered = await renderPicture(await picture(), fullPlan(), { depth });
    const path = join(folder, `print-${format}.${extension}`);
    await writePrint(rendered, ExportSettings.parse({ format, quality: 100 }), path);
    const metadata = await sharp(path).metadata();
    expect(metadata).toMatchObject({ width: W, height: H, channels: 1, depth: depth === 16 ? "ushort" : "uchar" });
    expect(Buffer.compare(metadata.icc!, Buffer.from(greyProfile()))).toBe(0);
    expect(readIccProfile(metadata.icc!)).toBeDefined();
    if (depth === 16) expect(largest(await readGrey16(path), rendered.levels)).toBe(0);
    else {
      const { data } = await sharp(path).keepIccProfile().toColourspace("b-w").raw().toBuffer({ resolveWithObject: true });
      expect(largest(data, rendered.levels)).toBeLessThanOrEqual(format === "jpeg" ? 6 : 0);
    }
  });

  test.each([90, 95, 100])("a sky of four levels stays smooth in a JPEG of quality %i, and bare paper stays bare", async (quality) => {
    const [w, h] = [2400, 120];
    const settings = ExportSettings.parse({ format: "jpeg", quality });
    const level = (x: number) => 150 + (4 * x) / w;
    const sky = Uint16Array.from({ length: 3 * w * h }, (_, i) => Math.round(257 * level(Math.floor(i / 3) % w)));
    const exported = async (levels: Uint16Array) => {
      const source = await decodedFrom("sky.png", await rgb16(levels, w, h).png().toBuffer());
      const rendered = await renderPicture(source, defaultPlan(), { depth: 8, noise: exportNoise(settings) });
      const path = join(folder, "sky.jpg");
      await writePrint(rendered, settings, path);
      return sharp(path).keepIccProfile().toColourspace("b-w").raw().toBuffer();
    };
    const grey = await exported(sky);
    let flat = 0;
    for (let k = 0, before = NaN, run = 0; k < w / 24; k++) {
      let sum = 0;
      for (let y = 0; y < h; y++) for (let x = 24 * k; x < 24 * k + 24; x++) sum += grey[y * w + x]!;
      const mean = sum / (24 * h);
      expect(Math.abs(mean - level(24 * k + 11.5))).toBeLessThan(0.3);
      run = Math.abs(mean - before) < 0.004 ? run + 1 : 0;
      before = mean;
      flat = Math.max(flat, run);
    }
    expect(flat).toBeLessThan(4); // a hundred pixels
    expect((await exported(new Uint16Array(3 * w * h).fill(65535))).reduce((least, level) => Math.min(least, level), 255)).toBeGreaterThan(
      253,
    );
  });

  test("a colour-managed reader finds the same L* through the profile", async () => {
    const rendered = await renderPicture(await picture(), defaultPlan(), { depth: 16 });
    const path = join(folder, "managed.tif");
    await writePrint(rendered, ExportSettings.parse({ format: "tiff16" }), path);
    // Through the profile to sRGB by the decoder's colour engine, at 8 bits.
    const { data, info } = await sharp(path).pipelineColourspace("b-w").toColourspace("srgb").raw().toBuffer({ resolveWithObject: true });
    const managed = Array.from({ length: W * H }, (_, i) => data[i * info.channels]!);
    expect(
      largest(
        managed,
        Array.from(rendered.levels, (level) => level / 257),
      ),
    ).toBeLessThanOrEqual(1.01);
  });

  test("a reduced export keeps the mean light and never enlarges", async () => {
    const source = await picture();
    const full = await renderPicture(source, fullPlan(), { depth: 16 });
    const small = await renderPicture(source, fullPlan(), { depth: 16, longEdge: 50 });
    expect(small.size).toEqual({ width: 50, height: 33 });
    const light = (levels: ArrayLike<number>) =>
      Array.from(levels).reduce((sum, level) => sum + toLinear(SRGB_CURVE, level / 65535), 0) / levels.length;
    expect(light(small.levels)).toBeCloseTo(light(full.levels), 4);
    expect((await renderPicture(source, fullPlan(), { depth: 16, longEdge: 5000 })).size).toEqual({ width: W, height: H });
    expect(
      largest((await renderPicture(source, fullPlan(), { depth: 16, longEdge: 50, threads: 2, threadFile })).levels, small.levels),
    ).toBe(0);
  });

  test("a cancelled render ends with the code, before it is whole", async () => {
    await expect(renderPicture(await picture(), fullPlan(), { depth: 8, signal: AbortSignal.abort() })).rejects.toMatchObject({
      code: "cancelled",
    });
  });

  test("a failed write leaves nothing behind", async () => {
    const rendered = await renderPicture(await picture(), fullPlan(), { depth: 8 });
    const taken = join(folder, "taken.png");
    mkdirSync(join(taken, "inside"), { recursive: true }); // a folder of that name: the last step, the renaming, fails
    const before = readdirSync(folder);
    await expect(writePrint(rendered, ExportSettings.parse({ format: "png8" }), taken)).rejects.toThrow();
    expect(readdirSync(folder)).toEqual(before);
  });

  test("a file with a broken profile is read as sRGB, and it is said", async () => {
    const path = join(folder, "broken-profile.tif");
    await rgb8(to8(colourful(W, H)), W, H)
      .tiff()
      .toFile(path);
    await embedInTiff(path, withProfile(greyProfile().map((byte, i) => (i > 130 && i < 150 ? 0xff : byte))));
    const decoded = await decodePicture(path, join(folder, "broken-profile"));
    expect(decoded.space.name).toBe("sRGB");
    expect(decoded.facts.notes.join(" ")).toContain("broken");
  });
});

describe("prepared pictures", () => {
  test("levels go down to the preview, agree with the full size, and are found again", async () => {
    const [W, H] = [3000, 900];
    const path = join(folder, "wide.png");
    await rgb16(colourful(W, H), W, H).png({ compressionLevel: 1 }).toFile(path);
    const prepared = await preparePicture(path, join(folder, "prepared"));
    expect(prepared.levels.map(({ width, height, depth }) => [width, height, depth])).toEqual([
      [3000, 900, 16],
      [1500, 450, 16],
      [1280, 384, 16],
    ]);
    expect(await readPrepared(join(folder, "prepared"))).toEqual(prepared);
    expect(await readPrepared(join(folder, "elsewhere"))).toBeUndefined();
    const meanLight = async (level: number) => {
      const { levels } = await renderPicture(prepared.files[level]!, defaultPlan(), { depth: 16 });
      return Array.from(levels).reduce((sum, grey) => sum + toLinear(SRGB_CURVE, grey / 65535), 0) / levels.length;
    };
    const full = await meanLight(0);
    for (const level of [1, 2]) expect(Math.abs((await meanLight(level)) / full - 1)).toBeLessThan(1e-4);
  });
});
