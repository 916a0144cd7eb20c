import { existsSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { luminanceToTone } from "@/core/colour/lstar";
import { apply3, invert3, type Vector3 } from "@/core/colour/matrix3";
import { LMS_TO_LAB, linearP3ToOklab, P3_TO_LMS } from "@/core/colour/oklab";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { addHueKnot, type HueKnot } from "@/core/mix/hueCurve";
import { openGate } from "@/core/gate/gate";
import { compilePlan, shownMaskOf } from "@/core/plan/compilePlan";
import { emptyRegion } from "@/core/plan/editRegions";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { cleanLevel, cleanPicture, readCleaned } from "@/engine/node/cleanPicture";
import { decodePicture } from "@/engine/node/decodePicture";
import { preparePicture } from "@/engine/node/preparePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import type { RawLayout } from "@/engine/node/rawLevels";
import { stageOf, storedLevels } from "@/engine/node/stageOf";
import { areaReduceRows } from "@/core/spatial/areaReduce";
import { lookTable } from "@/core/view/toneTables";
import { rgb8 } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const [W, H] = [200, 140];

const FROM_LAB = invert3(LMS_TO_LAB);
const FROM_LMS = invert3(P3_TO_LMS);
const TO_SRGB = invert3(SRGB_SPACE.toP3);

function ofLab(lab: Vector3): Vector3 {
  const [l, m, s] = apply3(FROM_LAB, lab);
  return apply3(TO_SRGB, apply3(FROM_LMS, [l ** 3, m ** 3, s ** 3]));
}

function lch(lightness: number, chroma: number, degrees: number): Vector3 {
  const angle = (degrees * Math.PI) / 180;
  return ofLab([lightness, chroma * Math.cos(angle), chroma * Math.sin(angle)]);
}

/** An 8-bit sRGB picture from linear sRGB. */
function picture(at: (x: number, y: number) => Vector3, width = W, height = H): Uint8Array {
  const levels = new Uint8Array(3 * width * height);
  for (let i = 0; i < width * height; i++)
    at(i % width, Math.floor(i / width)).forEach((v, c) => (levels[3 * i + c] = Math.round(255 * srgbEncode(Math.min(Math.max(v, 0), 1)))));
  return levels;
}

function noise(seed: number): () => number {
  let state = seed;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}

const leafOnSky = picture((x, y) => ((Math.floor(x / 24) + Math.floor(y / 20)) % 2 ? lch(0.45, 0.11, 140) : lch(0.78, 0.07, 240)));
const ramp = picture((x, y) => lch(0.72 + 0.05 * Math.sin(y / 40), 0.13, 50 + (50 * x) / W));

const SHOWING = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false } as const;

const largest = (a: ArrayLike<number>, b: ArrayLike<number>) =>
  Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

let files = 0;
/** A picture decoded from a file of a format. */
async function decoded(levels: Uint8Array, format: "png" | "jpeg", width = W, height = H) {
  const name = join(folder, `picture-${++files}`);
  const encoder = rgb8(levels, width, height);
  await (format === "png" ? encoder.png() : encoder.jpeg({ quality: 75, chromaSubsampling: "4:2:0" })).toFile(name);
  return decodePicture(name, `${name}.full`);
}

/** A plan that pulls one hue, of colour cleaned so far. */
function pulled(hueDeg: number, stops: number, clean: number): Plan {
  const plan = defaultPlan();
  const { knots, index } = addHueKnot([], hueDeg);
  const hueKnots = knots.map((knot: HueKnot, i) => (i === index ? { ...knot, stops } : knot));
  return { ...plan, mix: { ...plan.mix, clean, hueKnots } };
}

const cleanedOf = (layout: RawLayout) => async () => ({ full: cleanLevel(layout, `${layout.file}.clean`) });

/** Tones in L*, as an export has them. */
async function tones(layout: RawLayout, plan: Plan, longEdge?: number): Promise<Float64Array> {
  const { levels } = await renderPicture(layout, plan, { depth: 16, threads: 1, longEdge, cleaned: cleanedOf(layout) });
  return Float64Array.from(levels, (level) => 100 * luminanceToTone(toLinear(SRGB_CURVE, level / 65535)));
}

const worst = (a: Float64Array, b: Float64Array) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

function deviation(values: Float64Array): number {
  const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
  return Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
}

describe("colours of a compressed picture pulled apart", () => {
  test.each([
    ["leaf", leafOnSky, 140, 2],
    ["leaf", leafOnSky, 140, -2],
    ["sky", leafOnSky, 240, 2],
    ["sky", leafOnSky, 240, -2],
    ["ramp", ramp, 60, 2],
    ["ramp", ramp, 60, -2],
  ] as const)("%s: within 2 L* of the picture before it was compressed, and worse as found", async (_, made, hue, stops) => {
    const [png, jpeg] = [await decoded(made, "png"), await decoded(made, "jpeg")];
    const goal = await tones(png, pulled(hue, stops, 0));
    const [found, clean] = [await tones(jpeg, pulled(hue, stops, 0)), await tones(jpeg, pulled(hue, stops, 1))];
    expect(worst(clean, goal)).toBeLessThan(2);
    expect(worst(clean, goal)).toBeLessThan(worst(found, goal));
    // It spoils nothing of a picture that needs no cleaning.
    expect(worst(await tones(png, pulled(hue, stops, 1)), goal)).toBeLessThan(made === ramp ? 1 : 0.5); // the ramp's 8 bits are smoothed too
  });
});

test("noise of colour stays out of the tones, whichever hue is pulled", async () => {
  const gauss = noise(1);
  const [L, a, b] = linearP3ToOklab(apply3(SRGB_SPACE.toP3, lch(0.6, 0.1, 250)));
  const patch = await decoded(
    picture(() => ofLab([L + 0.006 * gauss(), a + 0.012 * gauss(), b + 0.012 * gauss()])),
    "png",
  );
  const plain = deviation(await tones(patch, defaultPlan()));
  const found: number[] = [];
  for (let hue = 190; hue <= 310; hue += 15) {
    found.push(deviation(await tones(patch, pulled(hue, 2, 0))));
    expect(deviation(await tones(patch, pulled(hue, 2, 1)))).toBeLessThan(1.1 * plain);
  }
  expect(Math.max(...found)).toBeGreaterThan(4 * plain);
});

test("two colours of one light, parted by two stops, keep their edge within a pixel and without overshoot", async () => {
  const edge = await decoded(
    picture((x) => lch(0.65, 0.11, x < W / 2 ? 25 : 145)),
    "png",
  );
  const plan = pulled(25, 1, 1);
  plan.mix.hueKnots = addHueKnot(plan.mix.hueKnots, 145).knots.map((knot) => (knot.hueDeg === 145 ? { ...knot, stops: -1 } : knot));
  const row = (await tones(edge, plan)).slice(70 * W, 71 * W);
  const [light, dark] = [row[20]!, row[180]!];
  expect(light - dark).toBeGreaterThan(20);
  expect(row.filter((v) => v > dark + 0.1 * (light - dark) && v < light - 0.1 * (light - dark)).length).toBe(0);
  row.forEach((v) => expect(Math.max(v - light, dark - v)).toBeLessThan(0.01 * (light - dark)));
});

test("where no weight and no hue is moved nothing is cleaned, and nothing asked for", async () => {
  const jpeg = await decoded(leafOnSky, "jpeg");
  const plan = defaultPlan("JPEG");
  expect([plan.mix.clean, defaultPlan("TIFF").mix.clean]).toEqual([1, 0]);
  const asked = { depth: 16, threads: 1, cleaned: () => Promise.reject(new Error("asked")) } as const;
  const { levels } = await renderPicture(jpeg, plan, asked);
  expect(levels).toEqual((await renderPicture(jpeg, defaultPlan(), { depth: 16, threads: 1 })).levels);
  await expect(renderPicture(jpeg, { ...plan, mix: { ...plan.mix, weights: { red: 1, green: 0, blue: 0 } } }, asked)).rejects.toThrow(
    "asked",
  );
});

test("an amount between lies between, of weights exactly halfway in light", async () => {
  const jpeg = await decoded(leafOnSky, "jpeg");
  const plan = (clean: number): Plan => ({
    ...defaultPlan(),
    mix: { ...defaultPlan().mix, clean, weights: { red: 0, green: 0.5, blue: 0.5 } },
  });
  const light = async (clean: number) => {
    const { levels } = await renderPicture(jpeg, plan(clean), { depth: 16, threads: 1, cleaned: cleanedOf(jpeg) });
    return Float64Array.from(levels, (level) => toLinear(SRGB_CURVE, level / 65535));
  };
  const [found, half, clean] = [await light(0), await light(0.5), await light(1)];
  expect(worst(found, clean)).toBeGreaterThan(0.03);
  half.forEach((v, i) => expect(Math.abs(v - (found[i]! + clean[i]!) / 2)).toBeLessThan(5e-5));
});

describe("small things of another colour stay", () => {
  /** Where a pattern has a thing of so many pixels; 0: a line of one, from top to bottom. */
  const isThing = (size: number, x: number, y: number) =>
    size === 0 ? x % 23 === 11 : x % 23 >= 8 && x % 23 < 8 + size && y % 23 >= 8 && y % 23 < 8 + size;
  /** Red things on green ground of their lightness, or so much darker. */
  const things = (size: number, darker: number) =>
    picture((x, y) => (isThing(size, x, y) ? lch(0.65 - darker, 0.12, 25) : lch(0.65, 0.1, 145)));
  /** How far the things are from their ground, in L*, red pulled up by two stops. */
  const contrast = (tones: Float64Array, size: number) => {
    const sums = { thing: [0, 0], ground: [0, 0] };
    for (let i = 0; i < tones.length; i++) {
      const [x, y] = [i % W, Math.floor(i / W)];
      if (x < 30 || y < 30 || x >= W - 30 || y >= H - 30) continue;
      const into = isThing(size, x, y) ? sums.thing : x % 23 === 20 && (size === 0 || y % 23 === 20) ? sums.ground : undefined;
      if (into) [into[0], into[1]] = [into[0]! + tones[i]!, into[1]! + 1];
    }
    return sums.thing[0]! / sums.thing[1]! - sums.ground[0]! / sums.ground[1]!;
  };
  const jpegOf = async (levels: Uint8Array, quality: number) => {
    const name = join(folder, `picture-${++files}`);
    await rgb8(levels, W, H).jpeg({ quality, chromaSubsampling: "4:4:4" }).toFile(name);
    return decodePicture(name, `${name}.full`);
  };

  test.each([
    ["a line of one pixel", 0, 0.5],
    ["three pixels", 3, 0.5],
    ["five", 5, 0.8],
    ["seven", 7, 0.9],
  ] as const)("%s: of their lightness, and never turned round where they are darker", async (_, size, least) => {
    for (const darker of [0, 0.04]) {
      const made = things(size, darker);
      const goal = contrast(await tones(await decoded(made, "png"), pulled(25, 2, 0)), size);
      expect(Math.abs(goal)).toBeGreaterThan(10);
      const sources = [await decoded(made, "png"), await jpegOf(made, 95), await jpegOf(made, 75)];
      for (const source of sources)
        expect(contrast(await tones(source, pulled(25, 2, 1)), size) / goal).toBeGreaterThan(source === sources[2] ? least * 0.98 : least);
    }
  });

  test("a faint one on grey, eight pixels wide", async () => {
    const level = (x: number, y: number) => x % 24 >= 8 && x % 24 < 16 && y % 24 >= 8 && y % 24 < 16;
    const source = await decoded(
      picture((x, y) => (level(x, y) ? lch(0.65, 0.05, 25) : lch(0.65, 0, 0))),
      "png",
    );
    const { levels } = storedLevels(cleanLevel(source, `${source.file}.clean`));
    const chroma: number[] = [];
    for (let i = 0; i < W * H; i++)
      if (level(i % W, Math.floor(i / W))) {
        const light = [0, 1, 2].map((c) => toLinear(SRGB_CURVE, levels[3 * i + c]! / 65535)) as unknown as Vector3;
        const [, a, b] = linearP3ToOklab(apply3(SRGB_SPACE.toP3, light));
        chroma.push(Math.hypot(a, b));
      }
    expect(chroma.reduce((sum, v) => sum + v, 0) / chroma.length).toBeGreaterThan(0.045);
  });

  test("and what the coder's own halving of colour took is not made up", async () => {
    const made = things(3, 0);
    const coarse = await decoded(made, "jpeg"); // 4:2:0
    const [found, clean] = [contrast(await tones(coarse, pulled(25, 2, 0)), 3), contrast(await tones(coarse, pulled(25, 2, 1)), 3)];
    expect(Math.abs(clean - found)).toBeLessThan(2);
  });
});

describe("a pale sky, as a JPEG keeps it", () => {
  const sky = picture((x, y) => lch(0.8 + 0.03 * (y / H), 0.02 + (0.03 * x) / W, 240 + 6 * Math.sin(y / 50)));
  const centres = [240, 275, 205];
  const maskPlan = (centreDeg: number, clean: number): Plan => {
    const plan = defaultPlan();
    const gate = { ...openGate(), hue: { centreDeg, widthDeg: 10, shoulderDeg: 60, invert: false } };
    return { ...plan, mix: { ...plan.mix, clean }, passes: [{ ...restingPass("contrast", "harder", "Harder"), gate }] };
  };
  /** The most that neighbouring values of a mask differ by. */
  const steepest = (mask: ArrayLike<number>, width: number) => {
    let most = 0;
    for (let i = 0; i < mask.length; i++) {
      if ((i + 1) % width) most = Math.max(most, Math.abs(mask[i]! - mask[i + 1]!));
      if (i + width < mask.length) most = Math.max(most, Math.abs(mask[i]! - mask[i + width]!));
    }
    return most;
  };

  const maskOf = async (jpeg: RawLayout, plan: Plan) =>
    Float64Array.from(
      (await renderPicture(jpeg, plan, { depth: 16, threads: 1, maskOf: "harder", cleaned: cleanedOf(jpeg) })).levels,
      (level) => level / 65535,
    );

  test.each(centres)("is not torn by a limit to hues around %i°, closely and at half its size", async (centreDeg) => {
    const jpeg = await decoded(sky, "jpeg");
    const [found, cleaned] = [await maskOf(jpeg, maskPlan(centreDeg, 0)), await maskOf(jpeg, maskPlan(centreDeg, 1))];
    expect(steepest(found, W)).toBeGreaterThan(0.08); // the blocks as the file has them
    expect(steepest(cleaned, W)).toBeLessThan(0.02);
    expect(Math.max(...cleaned) - Math.min(...cleaned)).toBeGreaterThan(0.4);
    // The page shows the same: whole, and from a smaller level.
    const stage = stageOf(jpeg, cleanLevel(jpeg, `${jpeg.file}.clean`));
    for (const size of [jpeg, { width: W / 2, height: H / 2 }]) {
      const seen = size === jpeg ? stage : stage.reducedTo(size);
      const plan = maskPlan(centreDeg, 1);
      seen.update(compilePlan(plan), undefined);
      const shown = seen.shownMask(shownMaskOf(plan, plan.passes[0]!));
      const expected = areaReduceRows(Float32Array.from(cleaned), 0, jpeg, size, 0, size.height);
      expect(largest(shown, expected)).toBeLessThan(0.01);
    }
  });

  test("is not torn by a likeness", async () => {
    const jpeg = await decoded(sky, "jpeg");
    const like = (clean: number): Plan => {
      const plan = maskPlan(240, clean);
      const touched = [{ x: 0.5, y: 0.35 }];
      const shape = {
        id: "l",
        combine: "add",
        kind: "likeness",
        touched,
        not: [],
        tolerance: 0.02,
        connected: false,
        edges: "colour",
        apart: "place",
      } as const;
      const regions = [{ ...emptyRegion("sky", "Sky"), shapes: [{ ...shape, touched, not: [] }] }];
      return { ...plan, regions, passes: [{ ...plan.passes[0]!, gate: null, region: "sky" }] };
    };
    const [found, cleaned] = [await maskOf(jpeg, like(0)), await maskOf(jpeg, like(1))];
    expect(steepest(found, W)).toBeGreaterThan(0.1);
    expect(steepest(cleaned, W)).toBeLessThan(0.03);
    expect(Math.min(...cleaned)).toBeLessThan(0.9);
  });

  test("is read as cleaned by whatever reads colour, before the mix too", async () => {
    const jpeg = await decoded(sky, "jpeg");
    const cleaned = cleanLevel(jpeg, `${jpeg.file}.clean`);
    const hue = { centreDeg: 240, widthDeg: 10, shoulderDeg: 60, invert: true };
    for (const kind of ["contrast", "scene-light"] as const) {
      for (const gate of [
        { ...openGate(), source: "red" as const, from: 8 },
        { ...openGate(), source: "own" as const, weights: { red: -1, green: 0, blue: 2 }, from: 9 },
        { ...openGate(), hue },
      ]) {
        const plan = (clean: number): Plan => ({ ...maskPlan(240, clean), passes: [{ ...restingPass(kind, "harder", "Harder"), gate }] });
        // The cleaned picture taken for a picture of its own; it is kept at 16 bits.
        const [asCleaned, itself] = [await maskOf(jpeg, plan(1)), await maskOf(cleaned, plan(0))];
        expect(largest(asCleaned, itself)).toBeLessThan(0.002);
        expect(largest(asCleaned, await maskOf(jpeg, plan(0)))).toBeGreaterThan(0.02);
      }
    }
  });
});

describe("a large picture", () => {
  const size = { width: 2600, height: 400 };
  const large = picture(
    (x, y) => ((Math.floor(x / 47) + Math.floor(y / 31)) % 2 ? lch(0.45, 0.11, 140 + 20 * Math.sin(x / 90)) : lch(0.75, 0.07, 240)),
    size.width,
    size.height,
  );
  const prepared = async () => {
    const name = join(folder, `large-${++files}`);
    await rgb8(large, size.width, size.height).jpeg({ quality: 75 }).toFile(name);
    const home = `${name}.prepared`;
    return { home, ...(await preparePicture(name, home)) };
  };

  test("has as many cleaned levels as it has, of the same sizes, made once and made anew when they are gone", async () => {
    const { home, files: found } = await prepared();
    expect(await readCleaned(home)).toBeUndefined();
    const levels = await cleanPicture(home, found[0]!);
    const shape = ({ width, height, grain }: RawLayout) => [width, height, grain !== undefined];
    expect(levels.map(shape)).toEqual(found.map(shape));
    expect(levels.every(({ depth, file }) => depth === 16 && existsSync(file))).toBe(true);
    const made = statSync(levels[0]!.file).mtimeMs;
    expect(await cleanPicture(home, found[0]!)).toEqual(levels);
    expect(statSync(levels[0]!.file).mtimeMs).toBe(made);
    rmSync(levels.at(-1)!.file);
    expect(await readCleaned(home)).toBeUndefined();
    await cleanPicture(home, found[0]!);
    expect(await readCleaned(home)).toEqual(levels);
    expect(readdirSync(home).filter((name) => name.startsWith("clean"))).toEqual(["clean-3"]);
  });

  test("looks at the size of a preview as its export does at that size", async () => {
    const { home, files: found } = await prepared();
    const clean = await cleanPicture(home, found[0]!);
    const preview = found.at(-1)!;
    const cleaned = async () => ({ full: clean[0]!, overview: clean.at(-1)! });
    const stage = stageOf(preview, clean.at(-1)!);
    /** How far the two lie apart, in 8-bit levels: dithers apart, and what grain cannot tell of hard edges. */
    const apart = async (amount: number) => {
      const plan = pulled(140, -1.5, amount);
      const options = { depth: 8, threads: 1, longEdge: preview.width, overview: preview, cleaned } as const;
      const { levels } = await renderPicture(found[0]!, plan, options);
      const shown = stage.render(compilePlan(plan), undefined, SHOWING);
      return Array.from(levels).reduce((sum, level, i) => sum + Math.abs(level - shown[4 * i]!), 0) / levels.length;
    };
    const asFound = await apart(0);
    expect(asFound).toBeLessThan(2);
    for (const amount of [0.4, 1]) expect(await apart(amount)).toBeLessThan(1.25 * asFound);
  });
});

test("a stage that was given no cleaned colour renders as far as it can, and says so where it cannot", async () => {
  const stage = stageOf(await decoded(leafOnSky, "jpeg"));
  const compiled = compilePlan(pulled(140, 1, 1));
  expect(() => stage.render(compiled, undefined, SHOWING)).toThrow("none was given");
  const found = stage.render(compilePlan(pulled(140, 1, 0)), undefined, SHOWING);
  expect(stage.render(stage.source.asFarAsGiven(compiled), undefined, SHOWING)).toEqual(found);
});

test.each([
  ["without", []],
  ["with", [{ ...restingPass("balance", "b", "B"), move: { kind: "balance", mired: 30, tint: 0 } }]],
  // A region that looks at the whole picture, small.
  ["in a likeness without", [{ ...restingPass("colour-return", "c", "C"), region: "like" }]],
] as const)(
  "what was rendered before cleaned colour was there is rendered anew when it comes, %s a pass before the mix",
  async (_, passes) => {
    const layout = await decoded(leafOnSky, "jpeg");
    const full = cleanLevel(layout, `${layout.file}.late`);
    const stage = stageOf(layout);
    const like = {
      id: "l",
      combine: "add",
      kind: "likeness",
      touched: [{ x: 0.5, y: 0.3 }],
      not: [],
      tolerance: 0.1,
      connected: true,
    } as const;
    const regions = [
      {
        ...emptyRegion("like", "Like"),
        shapes: [{ ...like, touched: [...like.touched], not: [], edges: "tone" as const, apart: "place" as const }],
      },
    ];
    const compiled = compilePlan({ ...pulled(140, -1.5, 1), regions, passes: passes as unknown as Plan["passes"] });
    const found = stage.render(stage.source.asFarAsGiven(compiled), undefined, SHOWING);
    stage.source.giveCleaned(storedLevels(full));
    const clean = stage.render(stage.source.asFarAsGiven(compiled), undefined, SHOWING);
    expect(clean).not.toEqual(found);
    expect(clean).toEqual(stageOf(layout, full).render(compiled, undefined, SHOWING));
  },
);

// The encoder's own library must be what it is taken for: colour kept at half the size.
test("the made JPEG is coarse in colour", async () => {
  const name = join(folder, "coarse");
  await rgb8(leafOnSky, W, H).jpeg({ quality: 75, chromaSubsampling: "4:2:0" }).toFile(name);
  expect((await sharp(name).metadata()).chromaSubsampling).toBe("4:2:0");
});
