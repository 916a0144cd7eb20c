import type { Planes } from "../kernels/planes";
import { describe, expect, test } from "vitest";
import { apply3, IDENTITY3, invert3, type Vector3 } from "../colour/matrix3";
import { LMS_TO_LAB, P3_TO_LMS } from "../colour/oklab";
import { ColourNoiseMeter, NOISE_BLOCK } from "./colourNoise";

const W = 12 * NOISE_BLOCK;

function ofLab(lab: Vector3): Vector3 {
  const [l, m, s] = apply3(invert3(LMS_TO_LAB), lab);
  return apply3(invert3(P3_TO_LMS), [l ** 3, m ** 3, s ** 3]);
}

function strip(at: (x: number, y: number) => Vector3): Planes {
  const n = W * NOISE_BLOCK;
  const planes = { red: new Float32Array(n), green: new Float32Array(n), blue: new Float32Array(n) };
  for (let i = 0; i < n; i++) [planes.red[i], planes.green[i], planes.blue[i]] = ofLab(at(i % W, Math.floor(i / W)));
  return planes;
}

function noise(seed: number): () => number {
  let state = seed;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}

function measured(at: (x: number, y: number) => Vector3) {
  const meter = new ColourNoiseMeter(W, IDENTITY3);
  meter.add(strip(at));
  return meter.measured();
}

describe("noise of colour", () => {
  test("is found as it was laid, and a third of it in means of nine pixels", () => {
    const gauss = noise(3);
    const { ofPixels, ofMeans } = measured(() => [0.55, 0.05 + 0.01 * gauss(), 0.01 * gauss()]);
    expect(ofPixels[9]).toBeCloseTo(0.01, 3);
    expect(Math.abs(ofMeans[9]! - 0.01 / 3)).toBeLessThan(0.0006); // of some hundred means a block
  });

  test("is told by lightness", () => {
    const gauss = noise(5);
    const deviation = (x: number) => (x < W / 2 ? 0.02 : 0.004);
    const { ofPixels } = measured((x) => [x < W / 2 ? 0.22 : 0.84, deviation(x) * gauss(), deviation(x) * gauss()]);
    expect(ofPixels[3]).toBeGreaterThan(0.018);
    expect(ofPixels[13]).toBeLessThan(0.005);
  });

  test("is neither a gradient, nor an edge, nor small things", () => {
    const { ofPixels, ofMeans } = measured((x, y) => {
      const isDot = x % 23 < 5 && y % 23 < 5;
      return [0.5, 0.0004 * x + (isDot ? 0.1 : 0), y > 20 ? 0.05 : -0.05];
    });
    for (const found of [...ofPixels, ...ofMeans]) expect(found).toBeLessThan(3e-4);
  });

  test("hangs together, and is in means of nine pixels as large as in one", () => {
    const gauss = noise(7);
    const cells = Float64Array.from({ length: 400 * 40 }, gauss);
    const blotch = (x: number, y: number) => 0.01 * cells[400 * Math.floor(y / 3) + Math.floor(x / 3)]!;
    const { ofPixels, ofMeans } = measured((x, y) => [0.55, blotch(x, y), blotch(x + 300, y)]);
    expect(ofPixels[9]).toBeLessThan(0.006); // most neighbours are alike
    expect(ofMeans[9]).toBeGreaterThan(0.008);
  });

  test("of a picture that is smaller than a block is none", () => {
    const { ofPixels, ofMeans } = new ColourNoiseMeter(20, IDENTITY3).measured();
    expect([...ofPixels, ...ofMeans].every((v) => v === 0)).toBe(true);
  });
});
