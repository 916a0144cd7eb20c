import type { Pass } from "@/core/passes/pass";
import { describe, expect, test } from "vitest";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { srgbEncode } from "@/core/colour/transferCurve";
import { openGate, type Gate } from "@/core/gate/gate";
import { RELIEF_SIZES, type ReliefSettings } from "@/core/passes/relief/relief";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { Stage } from "@/engine/stage/stage";

// What relief makes of made pictures, as the page renders them.

const [W, H] = [1280, 60];
const MIDDLE = H / 2;
const FLAT: ReliefSettings = { fine: 0, medium: 0, broad: 0 };

/** The middle row of a picture of tones, before and after relief. */
function relieved(toneAt: (x: number, y: number) => number, settings: Partial<ReliefSettings>, envelope: Partial<Pass> = {}) {
  const levels = new Uint16Array(3 * W * H);
  for (let i = 0; i < W * H; i++)
    levels.fill(Math.round(65535 * srgbEncode(toneToLuminance(toneAt(i % W, Math.floor(i / W))))), 3 * i, 3 * i + 3);
  const stage = Stage.fromLevels(levels, { width: W, height: H }, SRGB_SPACE);
  const pass = { ...restingPass("relief", "r", "R"), ...envelope, move: { kind: "relief", ...FLAT, ...settings } as const };
  stage.update(compilePlan({ ...defaultPlan(), passes: [pass] }), { first: 0, end: 1 });
  const row = (step: number) => Array.from(stage.tonesAfter(step).subarray(MIDDLE * W, (MIDDLE + 1) * W));
  return { before: row(0), after: row(1) };
}

/** Stops around mid odds: what detail is measured in. */
const oddsOf = (tone: number) => Math.log2(toneToLuminance(tone) / (1 - toneToLuminance(tone)));
const contrast = (tones: number[]) => {
  const odds = tones.slice(W / 4, (3 * W) / 4).map(oddsOf);
  const mean = odds.reduce((sum, v) => sum + v, 0) / odds.length;
  return Math.sqrt(odds.reduce((sum, v) => sum + (v - mean) ** 2, 0) / odds.length);
};
/** Waves of a length in pixels and a height in zones either way, around a tone. */
const waves =
  (length: number, zones: number, around = 0.5) =>
  (x: number, y: number) =>
    around + 0.1 * zones * Math.sin((2 * Math.PI * x) / length) * Math.cos((2 * Math.PI * (y - MIDDLE)) / length);

describe("beside a step", () => {
  /** Of two zones and more, wherever they lie. */
  const STEPS = [[0.25, 0.8], ...Array.from({ length: 13 }, (_, k) => [0.035 + 0.0617 * k, 0.235 + 0.0617 * k] as const)] as const;
  test.each(["fine", "medium", "broad", "all"] as const)("%s relief leaves no halo, up to the most there is", (name) => {
    for (const [low, high] of name === "all" ? STEPS : STEPS.slice(0, 3))
      for (const amount of [2, -1]) {
        const settings = name === "all" ? { fine: amount, medium: amount, broad: amount } : { [name]: amount };
        const { after } = relieved((x) => (x < W / 2 ? low : high), settings);
        const strays = after.map((tone, x) => Math.abs(tone - (x < W / 2 ? low : high)));
        expect(Math.max(...strays) / (high - low)).toBeLessThan(0.01);
      }
  });
  test("in grain the mean of either side stays to a hundredth of the step", () => {
    const noise = seeded(3);
    const { before, after } = relieved((x) => (x < W / 2 ? 0.3 : 0.7) + 0.04 * (noise() - 0.5), { fine: 1, medium: 1 });
    const mean = (tones: number[], from: number) => tones.slice(from, from + 40).reduce((sum, t) => sum + t, 0) / 40;
    for (const from of [W / 2 - 42, W / 2 + 2]) expect(Math.abs(mean(after, from) - mean(before, from))).toBeLessThan(0.004);
  });
});

describe("detail", () => {
  /** Waves that fall into each size: four of its radii long, or as good as. */
  const LENGTHS = { fine: 12, medium: 48, broad: 200 };

  test("of its own size is scaled, in shadow as in light; that of the others hardly", () => {
    for (const { name } of RELIEF_SIZES)
      for (const around of [0.25, 0.5, 0.75])
        for (const other of RELIEF_SIZES) {
          const { before, after } = relieved(waves(LENGTHS[other.name], 0.2, around), { [name]: 1 });
          const gain = contrast(after) / contrast(before) - 1;
          if (name === other.name) expect(gain).toBeGreaterThan(0.45);
          else expect(Math.abs(gain)).toBeLessThan(0.45);
          if (name === other.name) expect(gain).toBeLessThan(1.05);
        }
  });

  test("finer than all sizes is raised or lowered by five sixths and more of what fine says, at whatever tone", () => {
    for (const fine of [-0.5, 0.5, 1, 2])
      for (const around of [0.3, 0.5, 0.53, 0.55]) {
        const { before, after } = relieved(waves(5, 0.2, around), { fine });
        const part = (contrast(after) / contrast(before) - 1) / fine;
        expect(part).toBeGreaterThan(5 / 6);
        expect(part).toBeLessThan(1.03);
      }
  });

  test("is all but gone at less one of all sizes; twice the strength goes twice as far", () => {
    for (const around of [0.5, 0.53, 0.55]) {
      const mist = relieved(waves(20, 0.3, around), { fine: -1, medium: -1, broad: -1 });
      expect(contrast(mist.after)).toBeLessThan(0.2 * contrast(mist.before));
    }
    const [once, twice] = [relieved(waves(5, 0.2), { fine: 0.5 }, { strength: 2 }), relieved(waves(5, 0.2), { fine: 1 })];
    once.after.forEach((tone, x) => expect(tone).toBeCloseTo(twice.after[x]!, 5));
  });

  test("well inside a gate, however steep, is raised as without one; outside it stays", () => {
    const gate: Gate = { ...openGate(), from: 4, to: 6, low: 0.1, high: 0.1 };
    const inside = [{}, { gate }].map((envelope) => relieved(waves(12, 0.3), { fine: 1 }, envelope).after);
    inside[0]!.forEach((tone, x) => expect(Math.abs(tone - inside[1]![x]!)).toBeLessThan(2e-3));
    const { before, after } = relieved(waves(12, 0.3, 0.75), { fine: 1 }, { gate });
    after.forEach((tone, x) => expect(Math.abs(tone - before[x]!)).toBeLessThan(1e-6));
  });

  test("as strong as an edge keeps much of its raise: two zones of texture half and more", () => {
    const { before, after } = relieved(waves(12, 1), { fine: 1 });
    expect(contrast(after) / contrast(before)).toBeGreaterThan(1.4);
  });
});

describe("what has no detail stays", () => {
  const most = { fine: 2, medium: 2, broad: 2 };
  test.each([0, 0.02, 0.3, 0.5, 0.97, 1])("level at %d", (tone) => {
    const { before, after } = relieved(() => tone, most);
    after.forEach((t, x) => expect(Math.abs(t - before[x]!)).toBeLessThan(1e-4));
  });
  test("and a ramp from black to white across the picture, but beside the frame and at the ends", () => {
    const { before, after } = relieved((x) => x / (W - 1), most);
    after.forEach((t, x) => x > 250 && x < W - 250 && expect(Math.abs(t - before[x]!)).toBeLessThan(0.003));
  });
});

test("black and white are not reached by what lies between them", () => {
  const noise = seeded(9);
  const { after } = relieved(() => luminanceToTone(0.001 + 0.998 * noise()), { fine: 2, medium: 2, broad: 2 });
  for (const tone of after) expect(tone > 0 && tone < 1).toBe(true);
});

function seeded(state: number): () => number {
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
