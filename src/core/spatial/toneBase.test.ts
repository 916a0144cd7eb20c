import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { contrastMaskStops } from "../contrast/contrastMask";
import { exposeBy, surroundingTone } from "../kernels/reference";
import { gaussianBlur } from "./gaussianBlur";
import { toneBase, type ToneBase } from "./toneBase";

const size = { width: 300, height: 200 };
const plane = (tone: (x: number, y: number) => number, { width, height } = size) =>
  Float32Array.from({ length: width * height }, (_, i) => tone(i % width, Math.floor(i / width)));
const step = () => plane((x) => (x < 150 ? 0.25 : 0.75));

/** The surroundings of one row, read between cells. */
function row(base: ToneBase, tone: Float32Array, y: number): number[] {
  const read = (cells: Float32Array, x: number) => {
    const at = Math.min(Math.max(((x + 0.5) / size.width) * base.width - 0.5, 0), base.width - 1);
    const line = Math.min(Math.floor((y / size.height) * base.height), base.height - 1) * base.width;
    const i = Math.min(Math.floor(at), base.width - 2);
    return cells[line + i]! + (cells[line + i + 1]! - cells[line + i]!) * (at - i);
  };
  return Array.from({ length: size.width }, (_, x) => {
    const own = tone.subarray(y * size.width + x, y * size.width + x + 1);
    const offset = Float32Array.of(read(base.offset, x));
    return base.slope ? surroundingTone(own, Float32Array.of(read(base.slope, x)), offset)[0]! : offset[0]!;
  });
}

describe("the Gaussian", () => {
  test("leaves a level plane level to its edges, keeps the mean of a point, and copies at 0", () => {
    expect(
      gaussianBlur(
        plane(() => 0.4),
        size,
        9,
      ).every((t) => Math.abs(t - 0.4) < 1e-6),
    ).toBe(true);
    const point = plane((x, y) => (x === 150 && y === 100 ? 1 : 0));
    expect(gaussianBlur(point, size, 6).reduce((sum, t) => sum + t, 0)).toBeCloseTo(1, 4);
    expect(gaussianBlur(point, size, 0)).toEqual(point);
  });
  test("agrees with the decoder library's within a level of 8 bits and its own rounding", async () => {
    const picture = plane((x, y) => 0.5 + 0.3 * Math.sin(x / 17) * Math.cos(y / 11) + (x > 100 && x < 130 ? 0.15 : 0));
    const levels = Uint8Array.from(picture, (t) => Math.round(255 * t));
    const theirs = await sharp(levels, { raw: { ...size, channels: 1 } })
      .blur({ sigma: 5, precision: "float", minAmplitude: 0.002 })
      .toColourspace("b-w")
      .raw()
      .toBuffer();
    const ours = gaussianBlur(
      Float32Array.from(levels, (level) => level / 255),
      size,
      5,
    );
    const reach = 20; // their border repeats the last pixel, ours has none
    for (let y = reach; y < size.height - reach; y++) {
      for (let x = reach; x < size.width - reach; x++)
        expect(Math.abs(255 * ours[y * size.width + x]! - theirs[y * size.width + x]!)).toBeLessThan(2);
    }
  });
});

describe("surroundings", () => {
  test("of a level picture are that level, with edges and without", () => {
    const flat = plane(() => 0.6);
    for (const edges of [false, true]) {
      for (const t of row(toneBase(flat, size, { radius: 0.05, edges }), flat, 100)) expect(t).toBeCloseTo(0.6, 5);
    }
  });
  test("reduced cells read between agree with the full blur", () => {
    const tone = plane((x, y) => 0.5 + 0.25 * Math.sin(x / 20) + 0.2 * Math.cos(y / 15));
    const sigma = 0.06 * 300;
    const full = gaussianBlur(tone, size, sigma);
    const reduced = row(toneBase(tone, size, { radius: 0.06, edges: false }), tone, 100);
    reduced.forEach((t, x) => expect(Math.abs(t - full[100 * size.width + x]!)).toBeLessThan(0.01));
  });
  test("the same picture twice as large has the same surroundings", () => {
    const shape = (x: number, y: number) => 0.5 + 0.3 * Math.sin(9 * x) * Math.cos(7 * y);
    const small = toneBase(
      plane((x, y) => shape((x + 0.5) / 300, (y + 0.5) / 200)),
      size,
      { radius: 0.03, edges: true },
    );
    const double = { width: 600, height: 400 };
    const large = toneBase(
      plane((x, y) => shape((x + 0.5) / 600, (y + 0.5) / 400), double),
      double,
      { radius: 0.03, edges: true },
    );
    expect([large.width, large.height]).toEqual([small.width, small.height]);
    large.offset.forEach((t, i) => expect(Math.abs(t - small.offset[i]!)).toBeLessThan(3e-3));
  });
});

describe("a contrast mask over a step of five zones", () => {
  const masked = (edges: boolean) => {
    const tone = step();
    const surroundings = row(toneBase(tone, size, { radius: 0.04, edges }), tone, 100);
    const stops = Float32Array.from(surroundings, (t) => contrastMaskStops(t, 0.5));
    return exposeBy(tone.slice(100 * size.width, 101 * size.width), stops);
  };
  /** How far tones beside the step stray from those far away from it. */
  const seam = (tones: Float32Array) =>
    Math.max(...tones.subarray(20, 280).map((t, i) => Math.abs(t - (i + 20 < 150 ? tones[20]! : tones[279]!))));
  test("tames the step", () => {
    const tones = masked(true);
    expect(tones[279]! - tones[20]!).toBeLessThan(0.4);
    expect(tones[279]! - tones[20]!).toBeGreaterThan(0.1);
  });
  test("leaves a seam along it without edges, and next to none with them", () => {
    expect(seam(masked(false))).toBeGreaterThan(0.06);
    expect(seam(masked(true))).toBeLessThan(0.03);
  });
  test("gives nothing to Zone V, more to shadows, less to lights, in order", () => {
    expect(contrastMaskStops(0.5, 0.5)).toBeCloseTo(0, 3);
    for (let t = 0; t < 1; t += 0.01) expect(contrastMaskStops(t + 0.01, 0.5)).toBeLessThan(contrastMaskStops(t, 0.5));
    expect(contrastMaskStops(0.3, 0)).toBeCloseTo(0, 12);
  });
});
