import type { Planes } from "../kernels/planes";
import { describe, expect, test } from "vitest";
import { oklchToLinearP3 } from "../colour/oklchToP3";
import { luminanceToTone } from "../colour/lstar";
import { contrastKept, suggestMixes } from "./suggestMixes";
import { LUMINANCE_WEIGHTS, WEIGHT_LIMIT, weightSum, type Weights } from "./weights";

const oklchToP3 = (lightness: number, chroma: number, hueDeg: number) => oklchToLinearP3({ lightness, chroma, hueDeg });
const planesOf = (colours: readonly (readonly number[])[]): Planes => {
  const plane = (c: number) => Float32Array.from(colours, (colour) => colour[c]!);
  return { red: plane(0), green: plane(1), blue: plane(2) };
};
const toneOf = (colour: readonly number[], { red, green, blue }: Weights) =>
  luminanceToTone(Math.min(Math.max(red * colour[0]! + green * colour[1]! + blue * colour[2]!, 0), 1));
/** Colours of one luminance all round, as on the bench's target. */
const ring = (count: number, light: number, chroma: number) =>
  Array.from({ length: count }, (_, k) => {
    const colour = oklchToP3(light, chroma, (360 * k) / count);
    const y = LUMINANCE_WEIGHTS.red * colour[0] + LUMINANCE_WEIGHTS.green * colour[1] + LUMINANCE_WEIGHTS.blue * colour[2];
    return colour.map((channel) => (0.2 * channel) / y);
  });
/** As many of each as of the others, in the order of the picture. */
const field = (colours: readonly (readonly number[])[], each: number) => Array.from({ length: each }, () => colours).flat();

const PICTURES: Record<string, readonly (readonly number[])[]> = {
  "24 hues of one lightness": ring(24, 0.6, 0.09),
  "red roofs among green": [oklchToP3(0.55, 0.12, 28), oklchToP3(0.55, 0.1, 140), oklchToP3(0.57, 0.06, 110)],
  "blue dusk with warm lights": [
    oklchToP3(0.4, 0.07, 255),
    oklchToP3(0.42, 0.05, 70),
    oklchToP3(0.41, 0.06, 300),
    oklchToP3(0.6, 0.02, 90),
  ],
};

describe.each(Object.entries(PICTURES))("%s", (_, colours) => {
  const planes = planesOf(field(colours, 20));
  const mixes = suggestMixes(planes);

  test("four to six mixes are proposed, the best first, none but keeps more of the contrasts than luminance does", () => {
    expect(mixes.length).toBeGreaterThanOrEqual(4);
    expect(mixes.length).toBeLessThanOrEqual(6);
    const plain = contrastKept(planes)!(LUMINANCE_WEIGHTS);
    const kept = mixes.map((mix) => mix.kept);
    expect(kept).toEqual(kept.toSorted((a, b) => b - a));
    expect(kept.at(-1)!).toBeGreaterThan(plain);
    for (const { weights, kept: score } of mixes) expect(contrastKept(planes)!(weights)).toBe(score);
  });

  test("they leave neutrals alone, can be set by hand, and differ from luminance and from one another", () => {
    for (const { weights } of mixes) {
      expect(weightSum(weights)).toBeCloseTo(1, 12);
      for (const weight of Object.values(weights)) expect(Math.abs(weight)).toBeLessThanOrEqual(WEIGHT_LIMIT);
    }
    const all = [LUMINANCE_WEIGHTS, ...mixes.map(({ weights }) => weights)].map((weights) =>
      colours.map((colour) => toneOf(colour, weights)),
    );
    all.forEach((one, i) =>
      all.slice(i + 1).forEach((other) => {
        expect(one.reduce((sum, tone, k) => sum + Math.abs(tone - other[k]!), 0) / one.length).toBeGreaterThan(0.014);
      }),
    );
  });

  test("what is said to become lighter or darker does", () => {
    for (const { weights, lighter, darker } of mixes) {
      const by = colours.map((colour) => toneOf(colour, weights) - toneOf(colour, LUMINANCE_WEIGHTS));
      expect(lighter).not.toBe("");
      expect(lighter === darker).toBe(Math.max(...by) === Math.min(...by));
    }
  });
});

test("neighbours on a ring of 24 hues of one lightness are told apart by more than luminance tells them", () => {
  const colours = ring(24, 0.6, 0.09);
  const mixes = suggestMixes(planesOf(field(colours, 20)));
  const steps = (weights: Weights) =>
    colours.map((colour, k) => Math.abs(toneOf(colour, weights) - toneOf(colours[(k + 1) % 24]!, weights)));
  // L* 50 all of them by luminance; the smallest step stands where the ring turns, and there it is small under any weights.
  expect(Math.max(...steps(LUMINANCE_WEIGHTS))).toBeLessThan(1e-6);
  for (const { weights } of mixes) expect(steps(weights).toSorted((a, b) => a - b)[12]!).toBeGreaterThan(0.02);
  expect(Math.max(...mixes.map(({ weights }) => Math.min(...steps(weights))))).toBeGreaterThan(0.0025);
});

test("nothing is proposed for a picture without colour", () => {
  expect(suggestMixes(planesOf(Array.from({ length: 300 }, (_, k) => [k / 300, k / 300, k / 300])))).toEqual([]);
  expect(suggestMixes(planesOf([]))).toEqual([]);
  expect(suggestMixes(planesOf([[0.2, 0.1, 0.5]]))).toEqual([]);
});

test("the same picture gives the same mixes", () => {
  const planes = planesOf(field(PICTURES["red roofs among green"]!, 20));
  expect(suggestMixes(planes)).toEqual(suggestMixes(planes));
});
