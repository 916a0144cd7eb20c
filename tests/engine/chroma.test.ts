import { restingExposure } from "@/core/passes/exposure/fields";
import type { Pass } from "@/core/passes/pass";
import { readTable } from "@/core/kernels/pairTable";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { converter } from "culori";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { packPath } from "@/core/brush/stroke";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { apply3, invert3, type Vector3 } from "@/core/colour/matrix3";
import { linearP3ToOklab } from "@/core/colour/oklab";
import { OUTPUT_SPACES, OUTPUT_TO_P3, type OutputSpace } from "@/core/colour/printColour";
import { P3_LUMINANCE } from "@/core/colour/primaries";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { readIccProfile } from "@/core/formats/readIccProfile";
import { rgbProfile } from "@/core/formats/writtenProfile";
import { openGate } from "@/core/gate/gate";
import { LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import type { TintPoint } from "@/core/passes/tint/move";
import { sharpeningFor } from "@/core/passes/sharpen/forOutput";
import { READY_TINTS } from "@/core/passes/tint/readyTints";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { jpegNoise } from "@/core/view/coderNoise";
import { encodedLevels, lookShare, lookTable } from "@/core/view/toneTables";
import { exportNoise, ExportSettings } from "@/contracts/exportSettings";
import { renderPicture, type RenderOptions } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// Colour laid on tones: never a tone moved by it, the same however it is rendered, and what readers of files make of it.

const folder = temporaryFolder();
const size = { width: 300, height: 200 };
const levels = colourful(size.width, size.height);
const layout = { file: join(folder, "levels"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, levels);

const tint = (points: readonly TintPoint[], changed: Partial<Pass> = {}, replaces = false): Pass => ({
  ...restingPass("tint", "tint", "Tint"),
  move: { kind: "tint", points: [...points], replaces },
  ...changed,
});
const returned = (saturation = 1, changed: Partial<Pass> = {}): Pass => ({
  ...restingPass("colour-return", "return", "Return"),
  move: { kind: "colour-return", saturation },
  ...changed,
});
const HARD: Pass = { ...restingPass("contrast", "hard", "Hard"), move: { kind: "contrast", around: 5, grade: 4, black: 0, white: 10 } };
const planOf = (...passes: Pass[]): Plan => ({
  ...defaultPlan(),
  // The picture's own light, as it was found.
  mix: { ...defaultPlan().mix, weights: { ...LUMINANCE_WEIGHTS }, clean: 0 },
  regions: [
    {
      ...emptyRegion("oval", "Oval"),
      shapes: [{ id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.3, across: 0.3, down: 0.2, turnDeg: 0, inner: 0.05, outer: 0.05 }],
    },
  ],
  passes,
});
const VIVID: TintPoint[] = [
  { zone: 2, hueDeg: 260, chroma: 0.2 },
  { zone: 8, hueDeg: 30, chroma: 0.2 },
];
const SEPIA = READY_TINTS.find(({ name }) => name === "Sepia")!.points;

const render = (plan: Plan, options: Partial<RenderOptions> = {}) =>
  renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, space: "srgb", ...options });
/** The tone of the luminance of a written colour, independently of how it was made. */
function toneOf(channels: ArrayLike<number>, at: number, top: number, space: OutputSpace): number {
  const light = [0, 1, 2].map((c) => toLinear(SRGB_CURVE, channels[at + c]! / top)) as unknown as Vector3;
  const [r, g, b] = apply3(OUTPUT_TO_P3[space], light);
  return luminanceToTone(P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b);
}
const greyTone = (level: number, top: number) => luminanceToTone(toLinear(SRGB_CURVE, level / top));
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe("luminance", () => {
  test.each(OUTPUT_SPACES)(
    "of every pixel stays within 0.05 L* in %s, however vivid what is laid on it, in and out of what it can show",
    async (space) => {
      const grey = await render(planOf(HARD));
      for (const laid of [tint(VIVID, { strength: 2 }), tint(SEPIA), returned(2, { strength: 2 })]) {
        const colour = await render(planOf(HARD, laid), { space });
        expect(colour.space).toBe(space);
        let [most, coloured] = [0, 0];
        for (let i = 0; i < grey.levels.length; i++) {
          most = Math.max(most, Math.abs(toneOf(colour.levels, 3 * i, 65535, space) - greyTone(grey.levels[i]!, 65535)));
          if (colour.levels[3 * i] !== colour.levels[3 * i + 1]) coloured++;
        }
        expect(coloured).toBeGreaterThan(grey.levels.length / 2);
        expect(100 * most).toBeLessThan(0.05);
      }
    },
  );

  test("and the tones that leave a pass of colour are to the bit those that entered it", () => {
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const tones = (...passes: Pass[]) => {
      stage.update(compilePlan(planOf(...passes)), undefined);
      return stage.tonesAfter(passes.length).slice();
    };
    expect(worst(tones(HARD, tint(VIVID), returned(), HARD), tones(HARD, HARD))).toBe(0);
  });
});

describe("what cannot be shown", () => {
  test("gives way in chroma and keeps its hue", async () => {
    const { levels: made } = await render(planOf(tint([{ zone: 5, hueDeg: 145, chroma: 0.2 }], { strength: 2 })));
    const lch = converter("oklch");
    let [least, most, vivid] = [360, 0, 0];
    for (let i = 0; i < made.length; i += 3) {
      const [r, g, b] = [0, 1, 2].map((c) => made[i + c]! / 65535) as [number, number, number];
      const { c, h = 0 } = lch({ mode: "rgb", r, g, b })!;
      if (c < 0.05) continue;
      vivid++;
      [least, most] = [Math.min(least, h), Math.max(most, h)];
    }
    expect(vivid).toBeGreaterThan(1000);
    expect(least).toBeGreaterThan(145 - 2);
    expect(most).toBeLessThan(145 + 2);
  });

  test("a tint within reach is there in full", () => {
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const rgba = stage.render(compilePlan(planOf(tint([{ zone: 5, hueDeg: 70, chroma: 0.05 }]))), undefined, {
      ...FINISHED,
      dithered: false,
    });
    const tones = stage.tonesAfter(1);
    const { a, b } = stage.chromaAfter(1)!;
    let compared = 0;
    for (let i = 0; i < tones.length; i += 7) {
      if (tones[i]! < 0.3 || tones[i]! > 0.8) continue;
      compared++;
      const light = [0, 1, 2].map((c) => toLinear(SRGB_CURVE, rgba[4 * i + c]! / 255)) as unknown as Vector3;
      const [, madeA, madeB] = linearP3ToOklab(light);
      expect(Math.hypot(madeA - a[i]!, madeB - b[i]!)).toBeLessThan(0.003); // of levels of 8 bits
    }
    expect(compared).toBeGreaterThan(1000);
  });
});

describe("neutrals", () => {
  const inOval = planOf(HARD, tint(VIVID, { region: "oval" }), returned(1, { region: "oval" }));

  test.each([
    ["at full size", {}],
    ["reduced", { longEdge: 120 }],
    ["reduced and sharpened", { longEdge: 120, sharpen: sharpeningFor("strong") }],
  ])("stay exactly neutral beside colour, and are the levels of the grey print, %s", async (_, options) => {
    for (const depth of [8, 16] as const) {
      const grey = await render(planOf(HARD), { ...options, depth, space: undefined });
      const colour = await render(inOval, { ...options, depth });
      let [neutral, far] = [0, 0];
      for (let i = 0; i < grey.levels.length; i++) {
        const [r, g, b] = colour.levels.subarray(3 * i, 3 * i + 3) as unknown as [number, number, number];
        if (r !== g || g !== b) continue;
        neutral++;
        far = Math.max(far, Math.abs(r - grey.levels[i]!));
      }
      expect(neutral / grey.levels.length).toBeGreaterThan(0.5);
      expect(far).toBe(0);
    }
  });

  test("of a picture that was grey to begin with do not take on colour when it is returned", () => {
    const grey = Uint16Array.from({ length: 3 * 64 * 64 }, (_, i) => (Math.floor(i / 3) * 16) & 0xffff);
    const stage = Stage.fromLevels(grey, { width: 64, height: 64 }, SRGB_SPACE);
    const rgba = stage.render(compilePlan(planOf(returned(2, { strength: 2 }))), undefined, FINISHED);
    for (let i = 0; i < rgba.length; i += 4) expect([rgba[i + 1], rgba[i + 2]]).toEqual([rgba[i], rgba[i]]);
  });
});

describe("colour return", () => {
  test("reads cleaned colour, where a mix of its own light reads none", () => {
    const cleaned = (...passes: Pass[]) => {
      const plan = planOf(...passes);
      return compilePlan({ ...plan, mix: { ...plan.mix, clean: 0.7 } }).clean;
    };
    expect([cleaned(HARD), cleaned(tint(SEPIA)), cleaned(returned())]).toEqual([0, 0, 0.7]);
  });

  test("on the picture's own light is the picture", async () => {
    const { levels: made } = await render(planOf(returned()));
    expect(worst(made, levels)).toBeLessThan(8); // of 65,535
  });

  test("on darker tones follows as light does: channels stay in proportion", () => {
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const darker: Pass = { ...HARD, move: { kind: "exposure", ...restingExposure(), flat: -1.5 } };
    stage.update(compilePlan(planOf(darker, returned())), undefined);
    const [found, tones, { a, b }] = [stage.source.plainTones(undefined), stage.tonesAfter(2), stage.chromaAfter(2)!];
    for (let i = 0; i < tones.length; i += 11) {
      const { red, green, blue } = stage.source.colour;
      const [, ownA, ownB] = linearP3ToOklab([red[i]!, green[i]!, blue[i]!]);
      if (found[i]! < 0.05 || found[i]! > 0.9) continue;
      const share = Math.cbrt(toneToLuminance(tones[i]!) / toneToLuminance(found[i]!));
      expect(share).toBeLessThan(0.95);
      expect(Math.hypot(a[i]! - share * ownA, b[i]! - share * ownB)).toBeLessThan(1e-4);
    }
  });

  test("where strokes repair its gate is what it is without a gate", () => {
    const darker: Pass = { ...HARD, move: { kind: "exposure", ...restingExposure(), flat: -1.5 } };
    const path = packPath([0.2, 0.8].map((x) => ({ x, y: 0.4, pressure: 1 })));
    const repair = [{ radius: 0.08, hardness: 1, flow: 1, pressure: "none" as const, erase: false, path }];
    const gated = returned(0.5, { gate: { ...openGate(), from: 9.9, low: 0.1, repair } });
    const [through, free] = [gated, returned(0.5)].map((pass) => {
      const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
      stage.update(compilePlan(planOf(darker, pass)), undefined);
      return stage.chromaAfter(2)!;
    });
    for (let x = 90; x < 210; x++) {
      const at = 120 * size.width + x;
      expect(Math.hypot(free!.a[at]!, free!.b[at]!)).toBeGreaterThan(0.002);
      expect(Math.hypot(through!.a[at]! - free!.a[at]!, through!.b[at]! - free!.b[at]!)).toBeLessThan(1e-5);
    }
  });

  test("ends without a rim: across a soft edge between things, colour runs evenly from none to all, and light does not change", () => {
    // An even red beside an even grey of its light, colour returned up to the middle of the red.
    const [W, H] = [200, 20];
    const made = Uint16Array.from({ length: 3 * W * H }, (_, i) => 65535 * srgbEncode([0.5, 0.1, 0.05][i % 3]!));
    const stage = Stage.fromLevels(made, { width: W, height: H }, SRGB_SPACE);
    const region = {
      ...emptyRegion("half", "Half"),
      shapes: [
        { id: "g", combine: "add" as const, kind: "gradient" as const, from: { x: 0.4, y: 0.5 }, to: { x: 0.6, y: 0.5 }, twoSided: false },
      ],
    };
    const compiled = compilePlan({ ...planOf(returned(1, { region: "half" })), regions: [region] });
    stage.update(compiled, undefined);
    const row = 10 * W;
    const { a, b } = stage.chromaAfter(1)!;
    const chroma = Array.from({ length: W }, (_, x) => Math.hypot(a[row + x]!, b[row + x]!));
    const steps = chroma.slice(1).map((c, x) => Math.abs(c - chroma[x]!));
    expect(Math.min(...chroma)).toBe(0);
    expect(Math.max(...chroma)).toBeGreaterThan(0.1);
    expect(Math.max(...steps)).toBeLessThan(0.06 * Math.max(...chroma));
    const rgba = stage.render(compiled, undefined, { ...FINISHED, dithered: false });
    const tones = Array.from({ length: W }, (_, x) => toneOf(rgba, 4 * (row + x), 255, "display-p3"));
    expect(100 * (Math.max(...tones) - Math.min(...tones))).toBeLessThan(0.5); // levels of 8 bits
  });
});

describe("a thing chosen by its likeness", () => {
  // A disc of one colour on ground of another, whose tones lie close in the mix.
  const [W, H, RADIUS] = [1200, 800, 200];
  const disc = (ink: readonly number[], ground: readonly number[]) =>
    Uint16Array.from({ length: 3 * W * H }, (_, i) => {
      const pixel = Math.floor(i / 3);
      const inside = RADIUS + 0.5 - Math.hypot((pixel % W) + 0.5 - W / 2, Math.floor(pixel / W) + 0.5 - H / 2);
      const share = Math.min(Math.max(inside, 0), 1);
      return 65535 * srgbEncode(share * ink[i % 3]! + (1 - share) * ground[i % 3]!);
    });

  test.each([
    ["red on green of its tone", [0.5, 0.06, 0.04], [0.03, 0.15, 0.04]],
    ["red on darker grey", [0.5, 0.06, 0.04], [0.1, 0.1, 0.1]],
    ["yellow on blue", [0.6, 0.5, 0.05], [0.05, 0.1, 0.4]],
  ] as const)("comes back whole and without a rim: %s", (_, ink, ground) => {
    const stage = Stage.fromLevels(disc(ink, ground), { width: W, height: H }, SRGB_SPACE);
    const like = {
      id: "l",
      combine: "add",
      kind: "likeness",
      touched: [{ x: 0.5, y: 0.33 }],
      not: [],
      tolerance: 0.1,
      connected: true,
    } as const;
    const region = {
      ...emptyRegion("disc", "Disc"),
      shapes: [{ ...like, touched: [...like.touched], not: [], edges: "colour" as const, apart: "place" as const }],
    };
    stage.update(compilePlan({ ...planOf(returned(1, { region: "disc" })), regions: [region] }), undefined);
    const { a, b } = stage.chromaAfter(1)!;
    const row = (H / 2) * W;
    const chroma = Array.from({ length: W }, (__, x) => Math.hypot(a[row + x]!, b[row + x]!));
    const edge = W / 2 + RADIUS;
    const full = chroma[W / 2]!;
    expect(full).toBeGreaterThan(0.1);
    // Two pixels from the edge all of it is there on the one side, and on the other less than an eye sees.
    expect(Math.min(...chroma.slice(W / 2, edge - 2))).toBeGreaterThan(0.97 * full);
    expect(Math.max(...chroma.slice(edge + 2))).toBeLessThan(0.01);
  });
});

describe("at 8 bits", () => {
  /** A ramp so slow that each level is some hundred pixels wide. */
  const slow = { width: 512, height: 256 };
  const ramp = Uint16Array.from({ length: 3 * slow.width * slow.height }, (_, i) => 257 * 120 + 2 * (Math.floor(i / 3) % slow.width));
  const slowLayout = { file: join(folder, "slow"), offset: 0, ...slow, depth: 16, space: SRGB_SPACE } as const;
  writeFileSync(slowLayout.file, ramp);

  /** Means of 8 × 32 blocks: their lightness, and how far blue and red differ from it, in levels. */
  function blockMeans(levels: ArrayLike<number>): { light: number[]; blue: number[]; red: number[] } {
    const means = { light: [] as number[], blue: [] as number[], red: [] as number[] };
    for (let y = 0; y < slow.height; y += 32) {
      for (let x = 0; x < slow.width; x += 8) {
        const sums = [0, 0, 0];
        for (let v = y; v < y + 32; v++)
          for (let u = x; u < x + 8; u++) for (let c = 0; c < 3; c++) sums[c]! += levels[3 * (v * slow.width + u) + c]! / 256;
        const [r, g, b] = sums as [number, number, number];
        const light = 0.299 * r + 0.587 * g + 0.114 * b;
        means.light.push(light);
        means.blue.push((b - light) / 1.772);
        means.red.push((r - light) / 1.402);
      }
    }
    return means;
  }

  // Lightness at quality 88 is what a grey JPEG has there: docs/decisions/0014.
  test.each([
    ["png8", 95, 0.03, 0.05],
    ["png8", 95, 1, 0.05],
    ["jpeg", 100, 0.03, 0.2],
    ["jpeg", 95, 0.03, 0.35],
    ["jpeg", 95, 0.2, 0.35],
    ["jpeg", 95, 1, 0.35],
    ["jpeg", 88, 0.2, 0.5],
  ] as const)(
    "a faint colour in a %s of quality %i is on the mean what it is at 16 bits, at %d of its strength",
    async (format, quality, strength, light) => {
      const plan = planOf(tint(SEPIA, { strength }));
      const of = (options: Partial<RenderOptions>) => renderPicture(slowLayout, plan, { depth: 16, threads: 1, space: "srgb", ...options });
      const settings = ExportSettings.parse({ format, quality });
      const wanted = blockMeans(Float64Array.from((await of({})).levels, (level) => level / 257));
      const path = join(folder, `faint.${format}`);
      await writePrint(await of({ depth: 8, noise: exportNoise(settings) }), settings, path);
      const written = blockMeans(await sharp(path).raw().toBuffer());
      expect(worst(written.blue, wanted.blue)).toBeLessThan(0.3);
      expect(worst(written.red, wanted.red)).toBeLessThan(0.3);
      expect(worst(written.light, wanted.light)).toBeLessThan(light);
    },
  );

  test("greys beside colour are equal in all channels, whatever noise the coder is given", async () => {
    const grey = { ...slowLayout, file: join(folder, "grey") };
    writeFileSync(grey.file, ramp);
    const plan = planOf(tint([{ zone: 5, hueDeg: 60, chroma: 0 }]), tint(SEPIA, { region: "oval" }));
    const { levels: made } = await renderPicture(grey, plan, { depth: 8, threads: 1, space: "srgb", noise: jpegNoise(95) });
    let [greys, colours] = [0, 0];
    for (let i = 0; i < made.length; i += 3) {
      const x = (i / 3) % slow.width;
      if (x > 490) greys += Number(made[i] === made[i + 1] && made[i] === made[i + 2]);
      else colours += Number(made[i] !== made[i + 1] || made[i] !== made[i + 2]);
    }
    expect(greys).toBe(slow.height * (slow.width - 491));
    expect(colours).toBeGreaterThan(10_000);
  });
});

describe("every way of rendering", () => {
  const gated = { gate: { ...openGate(), from: 3, to: 7, low: 2, high: 2 } };
  const plan = planOf(
    HARD,
    tint(VIVID, gated),
    returned(0.8, { region: "oval", strength: 1.4 }),
    HARD,
    tint(SEPIA, { zonesOff: [0, 10] }, true),
  );

  test("gives the same colour: bands, threads and parts", async () => {
    const whole = await render(plan);
    const banded = await render(plan, { bandPixels: 700 });
    expect(worst(whole.levels, banded.levels)).toBe(0);
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    stage.update(compilePlan(plan), undefined);
    const [x, y, width, height] = [90, 40, 120, 70];
    const cut = Uint16Array.from({ length: 3 * width * height }, (_, i) => {
      const pixel = Math.floor(i / 3);
      return levels[3 * ((y + Math.floor(pixel / width)) * size.width + x + (pixel % width)) + (i % 3)]!;
    });
    const part = Stage.fromLevels(cut, { width, height }, SRGB_SPACE, { place: { x, y, whole: size } });
    part.update(compilePlan(plan), undefined, { bases: stage.bases() });
    const [all, some] = [stage.chromaAfter(5)!, part.chromaAfter(5)!];
    for (let i = 0; i < width * height; i++) {
      const at = (y + Math.floor(i / width)) * size.width + x + (i % width);
      expect(some.a[i]).toBe(all.a[at]);
      expect(some.b[i]).toBe(all.b[at]);
    }
    // The bench shows what the file holds.
    const rgba = stage.render(compilePlan(plan), undefined, { ...FINISHED, dithered: false, coloured: "srgb" });
    for (let i = 0; i < rgba.length / 4; i++)
      for (let c = 0; c < 3; c++) expect(Math.abs(rgba[4 * i + c]! - whole.levels[3 * i + c]! / 257)).toBeLessThan(0.6);
  });

  test("after any edit is as if rendered at once: strength, a hand elsewhere, passes switched", () => {
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const look = (from: Stage, of: Plan, active?: { first: number; end: number }) => from.render(compilePlan(of), active, FINISHED).slice();
    const changes: [Plan, { first: number; end: number } | undefined][] = [
      [plan, { first: 1, end: 2 }],
      [
        { ...plan, passes: plan.passes.with(1, { ...plan.passes[1]!, strength: 0.5 }) },
        { first: 1, end: 2 },
      ],
      [
        { ...plan, passes: plan.passes.with(1, { ...plan.passes[1]!, on: false }) },
        { first: 3, end: 4 },
      ],
      [
        { ...plan, passes: plan.passes.with(0, { ...HARD, strength: 0.4 }) },
        { first: 0, end: 1 },
      ],
      [planOf(HARD), undefined],
      [plan, { first: 4, end: 5 }],
    ];
    for (const [changed, active] of changes)
      expect(worst(look(stage, changed, active), look(Stage.fromLevels(levels, size, SRGB_SPACE), changed))).toBe(0);
  });

  test("a tint that is moved leaves what was gathered of tones after it", () => {
    const soft: Pass = { ...restingPass("soften", "soft", "Soft"), move: { kind: "soften", radius: 0.02, spreads: "all" } };
    const moved = planOf(tint(SEPIA), HARD, soft);
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const gathered = (of: Plan) => {
      stage.update(compilePlan(of), undefined);
      return stage.bases().steps.get(2)!.surroundings[0];
    };
    const before = gathered(moved);
    expect(gathered({ ...moved, passes: moved.passes.with(0, tint(VIVID)) })).toBe(before);
    expect(gathered({ ...moved, passes: moved.passes.with(1, { ...HARD, strength: 0.5 }) })).not.toBe(before);
  });

  test("reduced for the bench, with its grain, is near what the file is reduced to", async () => {
    const small = { width: 75, height: 50 };
    const fine = planOf(HARD, returned(), tint(SEPIA));
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE).reducedTo(small);
    expect(stage.source.grain).toBeDefined();
    const rgba = stage.render(compilePlan(fine), undefined, { ...FINISHED, dithered: false, coloured: "srgb" });
    const file = await render(fine, { longEdge: 75 });
    const off = Array.from(
      { length: 3 * 75 * 50 },
      (_, i) => Math.abs(rgba[4 * Math.floor(i / 3) + (i % 3)]! - file.levels[i]! / 257) / 255,
    );
    expect(off.reduce((sum, by) => sum + by, 0) / off.length).toBeLessThan(0.004);
    expect(off.toSorted((p, q) => p - q)[Math.floor(0.99 * off.length)]).toBeLessThan(0.03);
  });

  test("a print cut out, turned, is cut in its colours too", async () => {
    const frame = { turns: 1 as const, degrees: 0, mirrored: false, crop: { x: 0.1, y: 0.2, width: 0.6, height: 0.5 } };
    const cut = await render({ ...plan, frame });
    const whole = await render(plan);
    // Every colour of the cut is one of the picture's.
    const known = new Set(Array.from({ length: whole.levels.length / 3 }, (_, i) => whole.levels.subarray(3 * i, 3 * i + 3).join()));
    expect(cut.levels.length / 3).toBe(cut.size.width * cut.size.height);
    for (let i = 0; i < cut.levels.length; i += 3) expect(known.has(cut.levels.subarray(i, i + 3).join())).toBe(true);
  });
});

test("a zone lit alone keeps its colour, and all else is drawn towards grey without any", () => {
  const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
  const look = { kind: "zone", zone: 6 } as const;
  const showing = { ...FINISHED, dithered: false, table: lookTable(look), colourShare: lookShare(look) };
  const plan = compilePlan(planOf(tint(SEPIA)));
  const [lit, whole] = [stage.render(plan, undefined, showing).slice(), stage.render(plan, undefined, { ...FINISHED, dithered: false })];
  const tones = stage.tonesAfter(1);
  let [inside, outside] = [0, 0];
  for (let i = 0; i < tones.length; i++) {
    const pixel = [...lit.subarray(4 * i, 4 * i + 3)];
    const zone = 10 * tones[i]!;
    if (Math.abs(zone - 6) < 0.49) {
      inside++;
      expect(pixel).toEqual([...whole.subarray(4 * i, 4 * i + 3)]);
      expect(pixel[0]).toBeGreaterThan(pixel[2]!);
    } else if (Math.abs(zone - 6) > 0.51) {
      outside++;
      expect([pixel[1], pixel[2]]).toEqual([pixel[0], pixel[0]]);
    }
  }
  expect(Math.min(inside, outside)).toBeGreaterThan(1000);
});

describe("files", () => {
  const inP3 = Array.from({ length: levels.length / 3 }, (_, i) => {
    const light = [0, 1, 2].map((c) => toLinear(SRGB_CURVE, levels[3 * i + c]! / 65535)) as unknown as Vector3;
    return apply3(OUTPUT_TO_P3.srgb, light).map((channel) => 65535 * srgbEncode(channel));
  }).flat();

  test.each([
    ["tiff16", "srgb", "rgb16", 300],
    ["tiff8", "display-p3", "srgb", 3],
    ["png16", "display-p3", "rgb16", 300],
    ["png8", "srgb", "srgb", 2],
    ["jpeg", "display-p3", "srgb", 12],
  ] as const)("%s in %s is read by others as what it is", async (format, space, name, within) => {
    const settings = ExportSettings.parse({ format, colour: space, quality: 100 });
    const rendered = await render(planOf(returned()), { space, depth: format.endsWith("16") ? 16 : 8 });
    const path = join(folder, `made.${format}`);
    await writePrint(rendered, settings, path);
    const metadata = await sharp(path).metadata();
    expect([metadata.space, metadata.channels]).toEqual([name, 3]);
    expect(Buffer.compare(metadata.icc!, Buffer.from(rgbProfile(space)))).toBe(0);
    // A reader with colour management, which comes to Display P3 at 16 bits and to sRGB at 8, finds the picture's own colours there.
    const reader = sharp(path).toColourspace(format.endsWith("16") ? "rgb16" : "srgb");
    const managed = await reader.raw({ depth: "ushort" }).toBuffer();
    const read = new Uint16Array(managed.buffer, managed.byteOffset, managed.length / 2);
    const expected = format.endsWith("16") ? inP3 : Array.from(levels, (level) => level / 257);
    const off = Array.from(read, (level, i) => Math.abs(level - expected[i]!)).toSorted((p, q) => p - q);
    expect(off[Math.floor(0.99 * off.length)]).toBeLessThan(within);
  });

  test("are grey without colour in the print, or by choice", async () => {
    expect((await render(planOf(HARD))).space).toBeUndefined();
    const none = await render(planOf(HARD, tint(VIVID)), { space: undefined });
    expect(none.space).toBeUndefined();
    expect(worst(none.levels, (await render(planOf(HARD))).levels)).toBe(0);
    expect((await render(planOf({ ...tint(VIVID), on: false }))).space).toBeUndefined();
  });

  test.each(OUTPUT_SPACES)("the profile of %s says what its channels are", (space) => {
    const read = readIccProfile(rgbProfile(space))!;
    expect(worst(read.toP3, OUTPUT_TO_P3[space])).toBeLessThan(2e-4); // fixed point of 16 bits
    expect(
      worst(
        read.curves.map((curve) => toLinear(curve, 0.3)),
        [0, 1, 2].map(() => toLinear(SRGB_CURVE, 0.3)),
      ),
    ).toBeLessThan(1e-4);
    expect(worst(apply3(invert3(read.toP3), [1, 1, 1]), [1, 1, 1])).toBeLessThan(3e-4);
  });

  test("of a mask are grey whatever the print carries", async () => {
    const mask = await render(planOf(HARD, tint(VIVID, { region: "oval" })), { maskOf: "tint" });
    expect(mask.space).toBeUndefined();
    expect(mask.levels.length).toBe(size.width * size.height);
  });
});

test("the tone of a level is what the table of levels says", () => {
  const table = encodedLevels(65535);
  expect(greyTone(readTable(table, 0.4), 65535)).toBeCloseTo(0.4, 4);
});
