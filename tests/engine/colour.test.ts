import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import type { Planes } from "@/core/kernels/planes";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test, vi } from "vitest";
import { luminanceToTone } from "@/core/colour/lstar";
import { apply3, type Vector3 } from "@/core/colour/matrix3";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { curveTable, SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { openGate } from "@/core/gate/gate";
import { decode, lightColour, separate } from "@/core/reference/kernels";
import { balanceMatrix } from "@/core/passes/balance/balance";
import { separateStep } from "@/core/passes/separation/separation";
import type { SeparationMove } from "@/core/passes/separation/move";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import type { Shape } from "@/core/region/region";
import { lookTable } from "@/core/view/toneTables";
import { renderPicture } from "@/engine/node/renderPicture";
import { Source } from "@/engine/source/source";
import { BandMachine } from "@/engine/machine/bandMachine";
import { applyColourStep, COLOUR_STEPS } from "@/engine/steps/colourSteps";
import { Stage } from "@/engine/stage/stage";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// Passes before the mix.

const folder = temporaryFolder();
const size = { width: 300, height: 200 };
const levels = colourful(size.width, size.height);
const layout = { file: join(folder, "levels"), offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, levels);
const SHOWING = { table: lookTable({ kind: "picture" }), dithered: false, of: "print", screens: false } as const;

const LIGHT: Move = { kind: "scene-light", exposure: 0.4, shadows: 1.2, lights: -0.8 };
const WARM: Move = { kind: "balance", mired: 40, tint: -12 };
const APART: SeparationMove = {
  kind: "separation",
  saturation: 1.3,
  ranges: [{ hueDeg: 140, widthDeg: 60, turnDeg: 25, chroma: 0.7 }],
  parting: { stays: { a: 0.1, b: 0.05 }, moves: { a: -0.1, b: 0.08 }, held: { a: 0.02, b: -0.15 }, amount: 0.5 },
};
const pass = (move: Move, changed: Partial<Pass> = {}, id = move.kind): Pass => ({ ...restingPass(move.kind, id, id), move, ...changed });

const HARD: Move = { kind: "contrast", around: 5, grade: 3, black: 0, white: 10 };

const LIKE: Shape = {
  id: "l",
  combine: "add",
  kind: "likeness",
  touched: [{ x: 0.3, y: 0.5 }],
  not: [],
  tolerance: 0.3,
  connected: true,
  edges: "colour",
  apart: "place",
};

function planOf(...passes: Pass[]): Plan {
  const { mix } = defaultPlan();
  const regions = [{ ...emptyRegion("like", "Like"), shapes: [LIKE] }];
  return {
    ...defaultPlan(),
    mix: { ...mix, weights: { red: 0.9, green: 0.4, blue: -0.3 }, hueKnots: [{ hueDeg: 40, stops: 0.7 }] },
    regions,
    passes,
  };
}

/** Everything at once: a region that looks at the whole picture, a gate on the original with a hue, strengths. */
const full = () =>
  planOf(
    pass(LIGHT, { region: "like", strength: 1.4 }),
    pass(WARM, { gate: { ...openGate(), from: 3, low: 2, hue: { centreDeg: 100, widthDeg: 40, shoulderDeg: 50, invert: true } } }),
    pass(APART, { strength: 0.6, gate: { ...openGate(), source: "red", to: 6, blur: 0.02 } }),
    { ...restingPass("contrast", "c", "C"), move: { kind: "contrast", around: 5, grade: 3, black: 0, white: 10 } },
  );

const stageOf = () => Stage.fromLevels(levels, size, SRGB_SPACE);
function tonesOf(plan: Plan): Float32Array {
  const stage = stageOf();
  stage.update(compilePlan(plan), undefined);
  return stage.tonesAfter(plan.passes.length);
}
async function exported(plan: Plan, options: { bandPixels?: number } = {}): Promise<Float32Array> {
  const { levels } = await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout, ...options });
  return Float32Array.from(levels, (level) => luminanceToTone(toLinear(SRGB_CURVE, level / 65535)));
}
const worst = (a: ArrayLike<number>, b: ArrayLike<number>) => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe("what is shown and what is exported", () => {
  test.each([
    ["light", planOf(pass(LIGHT))],
    ["balance", planOf(pass(WARM))],
    ["separation", planOf(pass(APART))],
    ["all, through masks", full()],
  ])("are the same tones: %s", async (_, plan) => {
    const shown = tonesOf(plan);
    expect(worst(shown, tonesOf({ ...plan, passes: plan.passes.filter(({ id }) => id === "c") }))).toBeGreaterThan(0.05);
    expect(worst(await exported(plan), shown)).toBeLessThan(1e-4);
  });

  test("whatever the bands, and in a part as in the whole", async () => {
    const plan = full();
    expect(await exported(plan, { bandPixels: 700 })).toEqual(await exported(plan));
    const whole = stageOf();
    const compiled = compilePlan(plan);
    whole.update(compiled, undefined);
    const area = { x: 90, y: 60, width: 120, height: 80 };
    const part = new Uint16Array(3 * area.width * area.height);
    for (let row = 0; row < area.height; row++) {
      const at = 3 * ((area.y + row) * size.width + area.x);
      part.set(levels.subarray(at, at + 3 * area.width), 3 * row * area.width);
    }
    const stage = new Stage(Source.fromLevels(part, area, SRGB_SPACE, { place: { x: area.x, y: area.y, whole: size } }));
    stage.update(compiled, undefined, { bases: whole.bases() });
    const [tones, all] = [stage.tonesAfter(4), whole.tonesAfter(4)];
    for (let row = 0; row < area.height; row++) {
      const at = (area.y + row) * size.width + area.x;
      expect(worst(tones.subarray(row * area.width, (row + 1) * area.width), all.subarray(at, at + area.width))).toBeLessThan(1e-5);
    }
  });
});

/** So little that no colour has to give way. */
const NEAR: SeparationMove = { ...APART, parting: { ...APART.parting!, amount: 0.1 } };
test.each([
  ["with ranges of hues", NEAR],
  ["without", { ...NEAR, ranges: [] }],
])("is what the plain formulas make of it, one after the other, each so far: %s", (_, apart) => {
  const half = 0.5;
  const flat: Move = { kind: "scene-light", exposure: -1, shadows: 0, lights: 0 };
  // Colours well within the source: nothing has to give way.
  const soft = Uint16Array.from(levels, (level) => 25000 + level / 8);
  // Not those of luminance, which separation keeps whatever it does to colours.
  const weights = { red: 0.6, green: 0.3, blue: 0.1 };
  const mix = { ...defaultPlan().mix, weights };
  const plan: Plan = { ...planOf(pass(flat), pass(WARM, { strength: half }), pass(apart, { strength: half })), mix };
  const table = curveTable(SRGB_CURVE, 65536);
  let colour: Planes = decode(soft, [table, table, table], SRGB_SPACE.toP3);
  const towards = (to: Planes, share: number): Planes => {
    const mixed = (name: keyof Planes) => colour[name].map((v, i) => v + share * (to[name][i]! - v));
    return { red: mixed("red"), green: mixed("green"), blue: mixed("blue") };
  };
  colour = lightColour(colour, new Float32Array(colour.red.length).fill(-1));
  const warmed = { red: colour.red.slice(), green: colour.green.slice(), blue: colour.blue.slice() };
  const matrix = balanceMatrix({ mired: 40, tint: -12 });
  for (let i = 0; i < warmed.red.length; i++)
    [warmed.red[i], warmed.green[i], warmed.blue[i]] = apply3(matrix, [colour.red[i]!, colour.green[i]!, colour.blue[i]!]);
  colour = towards(warmed, half);
  colour = towards(separate(colour, separateStep(apart)), half);
  const stage = Stage.fromLevels(soft, size, SRGB_SPACE);
  stage.update(compilePlan(plan), undefined);
  const plain = (rgb: Vector3) => luminanceToTone(weights.red * rgb[0] + weights.green * rgb[1] + weights.blue * rgb[2]);
  const wanted = Array.from(colour.red, (r, i) => plain([r, colour.green[i]!, colour.blue[i]!]));
  expect(worst(stage.tonesAfter(3), wanted)).toBeLessThan(2e-5);
});

test.each(["alongA", "alongB"] as const)("colours drawn apart by %s alone go as far as the plain formulas say", (axis) => {
  const made = separateStep({ ...NEAR, ranges: [] });
  const step = { ...made, parting: { ...made.parting, alongA: 0, alongB: 0, [axis]: 0.5 } };
  const table = curveTable(SRGB_CURVE, 65536);
  const soft = Uint16Array.from(levels, (level) => 25000 + level / 8);
  const found = decode(soft, [table, table, table], SRGB_SPACE.toP3);
  const pixels = found.red.length;
  const machine = new BandMachine(pixels, 16);
  machine.setGamut(SRGB_SPACE.toP3);
  for (const name of ["red", "green", "blue"] as const) machine.put(name, found[name], 0, pixels);
  applyColourStep(machine, step, 1, false, undefined, { x: 0, y: 0, width: pixels, whole: { width: pixels, height: 1 } });
  const parted = separate(found, step);
  for (const name of ["red", "green", "blue"] as const) {
    const out = new Float32Array(pixels);
    machine.take(name, out, 0);
    expect(worst(out, parted[name])).toBeLessThan(2e-5);
  }
  expect(worst(parted.red, found.red)).toBeGreaterThan(0.01);
});

test("light that the eye sees stays where colours are drawn apart; neutrals stay neutral through all but balance", () => {
  const { mix } = defaultPlan();
  const plan: Plan = { ...planOf(pass(APART)), mix };
  expect(worst(tonesOf(plan), tonesOf({ ...plan, passes: [] }))).toBeLessThan(2e-5);
  const grey = Uint16Array.from(levels, (_, i) => levels[i - (i % 3)]!);
  const stage = Stage.fromLevels(grey, size, SRGB_SPACE);
  stage.update(compilePlan(planOf(pass(APART), pass(LIGHT))), undefined);
  const mixed = stage.tonesAfter(0);
  const light = Stage.fromLevels(grey, size, SRGB_SPACE);
  light.update(compilePlan({ ...planOf(pass(LIGHT)), mix }), undefined);
  expect(worst(mixed, light.tonesAfter(0))).toBeLessThan(2e-5);
});

test("light by surroundings leaves no seam beside an edge", () => {
  const [W, H] = [640, 400];
  const [dark, light] = [0.02, 0.5];
  const step = Uint16Array.from({ length: 3 * W * H }, (_, i) =>
    Math.round(65535 * srgbEncode(Math.floor(i / 3) % W < W / 2 ? dark : light)),
  );
  for (const move of [
    { kind: "scene-light", exposure: 0, shadows: 2, lights: 0 },
    { kind: "scene-light", exposure: 0, shadows: 1.5, lights: -1.5 },
  ] as const) {
    const stage = Stage.fromLevels(step, { width: W, height: H }, SRGB_SPACE);
    const plan = { ...planOf(pass(move)), mix: defaultPlan().mix };
    stage.update(compilePlan(plan), undefined);
    const row = Array.from(stage.tonesAfter(1).subarray((H / 2) * W, (H / 2 + 1) * W));
    const [far, high] = [row[10]!, row[W - 10]!];
    expect(far).toBeGreaterThan(luminanceToTone(dark) + 0.05);
    const out = Math.max(...row.slice(0, W / 2).map((t) => Math.abs(t - far)), ...row.slice(W / 2).map((t) => Math.abs(t - high)));
    expect(out / (high - far)).toBeLessThan(0.01);
  }
});

test("nothing is pushed past black or white", () => {
  const plan = planOf(pass({ kind: "scene-light", exposure: 3, shadows: 2, lights: 2 }), pass({ ...APART, saturation: 2 }));
  for (const tone of tonesOf(plan)) expect(tone >= 0 && tone <= 1).toBe(true);
  const stage = stageOf();
  const compiled = compilePlan(planOf(pass({ kind: "scene-light", exposure: 3, shadows: 0, lights: 0 })));
  const [r, g, b] = stage.colourAt(compiled, 30, 100, 0);
  expect(Math.max(r, g, b)).toBeLessThanOrEqual(1 + 1e-5);
});

test("colours of a wide source that lie outside P3 stay outside it", () => {
  // Its green lies far outside P3; its white is P3's.
  const space = { ...SRGB_SPACE, toP3: [1.5, -0.4, -0.1, -0.15, 1.2, -0.05, 0.02, -0.12, 1.1] } as const;
  const green = Uint16Array.from({ length: 3 * 64 }, (_, i) => [4000, 52000, 6000][i % 3]!);
  const stage = Stage.fromLevels(green, { width: 8, height: 8 }, space);
  const found = stage.colourAt(compilePlan(planOf()), 4, 4, 0);
  expect(Math.min(...found)).toBeLessThan(-0.1);
  for (const move of [
    { ...APART, saturation: 1.0001, ranges: [], parting: null },
    { kind: "scene-light", exposure: 0.001, shadows: 0, lights: 0 },
  ] as Move[])
    stage.colourAt(compilePlan(planOf(pass(move))), 4, 4, 0).forEach((v, c) => expect(v).toBeCloseTo(found[c]!, 3));
});

test("colour before the mix is kept while the mix or a tone is under the hand, and changed anew with its own pass", () => {
  const stage = stageOf();
  const plan = full();
  const render = (now: Plan) => stage.render(compilePlan(now), { first: 3, end: 4 }, SHOWING);
  render(plan);
  const changes = vi.spyOn(COLOUR_STEPS.separate, "apply");
  render({ ...plan, mix: { ...plan.mix, weights: { red: 0.2, green: 0.5, blue: 0.3 } } });
  render({ ...plan, mix: { ...plan.mix, hueKnots: [{ hueDeg: 40, stops: -0.7 }] } });
  expect(changes).not.toHaveBeenCalled();
  render({ ...plan, passes: plan.passes.with(1, { ...plan.passes[1]!, strength: 0.4 }) });
  expect(changes).toHaveBeenCalled();
  vi.restoreAllMocks();
});

test.each([
  ["a light before the mix alone", [pass(LIGHT)]],
  ["a region after the mix alone", [{ ...pass(HARD), region: "like" }]],
  ["a light before the mix, and a region after it", [pass(LIGHT), { ...pass(HARD), region: "like" }]],
])("an export gathers of the whole picture what it needs: %s", async (_, passes) => {
  const plan = planOf(...passes);
  expect(worst(await exported(plan), tonesOf(plan))).toBeLessThan(1e-4);
});

test("a mask before the mix is of the picture as found: no mix moves it", async () => {
  const plan = full();
  const other = { ...plan, mix: { ...plan.mix, weights: { red: -0.5, green: 1, blue: 0.5 } } };
  for (const maskOf of plan.passes.slice(0, 3).map(({ id }) => id)) {
    const mask = async (of: Plan) => (await renderPicture(layout, of, { depth: 16, threads: 1, overview: layout, maskOf })).levels;
    expect(await mask(other)).toEqual(await mask(plan));
    expect(new Set(await mask(plan)).size).toBeGreaterThan(100);
  }
});

test("a colour is picked as it enters a pass", () => {
  const stage = stageOf();
  const found = stage.colourAt(compilePlan(planOf()), 150, 100, 2);
  const warm = stage.colourAt(compilePlan(planOf(pass(WARM))), 150, 100, 2);
  apply3(balanceMatrix({ mired: 40, tint: -12 }), found).forEach((v, c) => expect(warm[c]).toBeCloseTo(v, 5));
});
