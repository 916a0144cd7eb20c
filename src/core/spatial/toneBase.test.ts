import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { contrastMaskStops } from "../passes/contrast-mask/contrastMask";
import { CELL_FLOATS } from "../kernels/kernelHeap";
import { exposeBy } from "../reference/kernels";
import { gridOf, wholeGrid } from "./grid";
import { gaussianBlur } from "./gaussianBlur";
import { layBase } from "./layBase";
import { layCells } from "./layCells";
import { surroundingsOf, type SlicedBase, type Surroundings } from "./slicedBase";
import { toneBase } from "./toneBase";

const size = { width: 300, height: 200 };
const plane = (tone: (x: number, y: number) => number, { width, height } = size) =>
  Float32Array.from({ length: width * height }, (_, i) => tone(i % width, Math.floor(i / width)));

/** One slice of surroundings. */
const sliceOf = ({ cells, width, height }: SlicedBase, k: number) =>
  Float32Array.from({ length: width * height }, (_, i) => cells[CELL_FLOATS * i + k]!);

/** The surroundings of one row, read between cells and between slices. */
function row(base: Surroundings, tone: Float32Array, y: number): number[] {
  const read = (cells: Float32Array, x: number) => {
    const at = Math.min(Math.max(((x + 0.5) / size.width) * base.width - 0.5, 0), base.width - 1);
    const line = Math.min(Math.floor((y / size.height) * base.height), base.height - 1) * base.width;
    const i = Math.min(Math.floor(at), base.width - 2);
    return cells[line + i]! + (cells[line + i + 1]! - cells[line + i]!) * (at - i);
  };
  return Array.from({ length: size.width }, (_, x) => {
    if (!("slices" in base)) return read(base.offset, x);
    const own = !base.guide
      ? tone[y * size.width + x]!
      : layBase(base.guide, gridOf({ width: 1, height: 1 }, x, y, size), tone.subarray(y * size.width + x))[0]!;
    const slice = own * (base.slices - 1);
    const lower = Math.min(Math.floor(slice), base.slices - 2);
    const [a, b] = [lower, lower + 1].map((k) => read(sliceOf(base, k), x));
    return a! + (slice - lower) * (b! - a!);
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
    for (const edges of ["none", "guide", "tone"] as const) {
      for (const t of row(surroundingsOf(flat, size)({ radius: 0.05, edges }), flat, 100)) expect(t).toBeCloseTo(0.6, 4);
    }
  });
  test("reduced cells read between agree with the full blur", () => {
    const tone = plane((x, y) => 0.5 + 0.25 * Math.sin(x / 20) + 0.2 * Math.cos(y / 15));
    const sigma = 0.06 * 300;
    const full = gaussianBlur(tone, size, sigma);
    const reduced = row(toneBase(tone, size, 0.06), tone, 100);
    reduced.forEach((t, x) => expect(Math.abs(t - full[100 * size.width + x]!)).toBeLessThan(0.01));
  });
  test("cells are blurred by as much less as averaging over them and reading between them blurs", () => {
    const sigma = 0.05 * 300;
    const line = plane((x) => (x < 150 ? 0 : 1));
    // As it is read: places between cells by a spline, straight between those.
    const base = toneBase(line, size, 0.05);
    const finer = { width: 2 * base.width, height: 2 * base.height };
    const around = row({ ...finer, slope: undefined, offset: layCells(base.offset, base, wholeGrid(finer)) }, line, 100);
    // The slope of a blurred step is a Gaussian: its variance is that of all the blurs together.
    let [sum, variance] = [0, 0];
    for (let x = 1; x < 300; x++) {
      const slope = around[x]! - around[x - 1]!;
      sum += slope;
      variance += slope * (x - 150) ** 2;
    }
    expect(sum).toBeCloseTo(1, 2);
    // The kernel ends at 3.5 standard deviations, which takes 0.9 % of its variance; cells would add half a per cent.
    expect(variance / sum / sigma ** 2).toBeGreaterThan(0.989);
    expect(variance / sum / sigma ** 2).toBeLessThan(0.993);
  });
  test.each(["none", "guide", "tone"] as const)("the same picture twice as large has the same surroundings, edges %s", (edges) => {
    const shape = (x: number, y: number) => 0.5 + 0.3 * Math.sin(9 * x) * Math.cos(7 * y);
    const of = (width: number, height: number) => {
      const picture = plane((x, y) => shape((x + 0.5) / width, (y + 0.5) / height), { width, height });
      const base = surroundingsOf(picture, { width, height })({ radius: 0.03, edges });
      return { ...base, cells: "slices" in base ? base.cells : base.offset };
    };
    const [small, large] = [of(300, 200), of(600, 400)];
    expect([large.width, large.height]).toEqual([small.width, small.height]);
    // Slices that few pixels lie near are told by other ones of them at twice the size.
    large.cells.forEach((t, i) => expect(Math.abs(t - small.cells[i]!)).toBeLessThan({ none: 3e-3, guide: 0.04, tone: 0.05 }[edges]));
  });
});

describe("a contrast mask beside a step", () => {
  const grain = (i: number) => ((i * 7919) % 101) / 101 - 0.5;
  const masked = (edges: boolean, low: number, high: number, noise = 0) => {
    const tone = plane((x, y) => (x < 150 ? low : high) + noise * grain(y * 300 + x));
    const base = surroundingsOf(tone, size)({ radius: 0.05, edges: edges ? "guide" : "none" });
    // The mean of some rows: grain is not what is looked for.
    const sums = new Float64Array(300);
    for (let y = 80; y < 110; y++) {
      const stops = Float32Array.from(row(base, tone, y), (t) => contrastMaskStops(t, 0.5));
      exposeBy(tone.slice(y * 300, (y + 1) * 300), stops).forEach((t, x) => (sums[x] = sums[x]! + t / 30));
    }
    return sums;
  };
  /** How far tones beside the step stray from those far away from it, in zones. */
  const halo = (tones: Float64Array) =>
    10 * Math.max(...tones.subarray(10, 290).map((t, i) => Math.abs(t - (i + 10 < 150 ? tones[10]! : tones[289]!))));
  test.each([
    [0.25, 0.8, 0.1, 0.9],
    [0.4, 0.6, 0.1, 0.35],
    [0.35, 0.5, 0.2, 0.28],
  ])(
    "from %d to %d: a halo under %d of a zone with edges, in grain too; a broad one without",
    (low, high, most, plain) => {
      expect(halo(masked(true, low, high))).toBeLessThan(most);
      expect(halo(masked(true, low, high, 0.03))).toBeLessThan(most);
      expect(halo(masked(false, low, high))).toBeGreaterThan(plain);
    },
    120_000,
  );
  test("tames the step as much with edges as without", () => {
    const [kept, spread] = [masked(true, 0.25, 0.75), masked(false, 0.25, 0.75)];
    const contrast = (tones: Float64Array) => tones[289]! - tones[10]!;
    expect(contrast(kept)).toBeLessThan(0.4);
    expect(contrast(kept)).toBeGreaterThan(0.1);
    expect(contrast(kept)).toBeCloseTo(contrast(spread), 2);
  });
  test("leaves texture its contrast: two zones of it, finer than an eighth of the radius, have one surrounding", () => {
    const tone = plane((x, y) => 0.5 + 0.1 * Math.sign(Math.sin(x * 3.1) * Math.sin(y * 3.1)));
    const around = row(surroundingsOf(tone, size)({ radius: 0.05, edges: "guide" }), tone, 100);
    expect(Math.max(...around) - Math.min(...around)).toBeLessThan(0.16 * 0.2);
  });
  test("gives nothing to Zone V, more to shadows, less to lights, in order", () => {
    expect(contrastMaskStops(0.5, 0.5)).toBeCloseTo(0, 3);
    for (let t = 0; t < 1; t += 0.01) expect(contrastMaskStops(t + 0.01, 0.5)).toBeLessThan(contrastMaskStops(t, 0.5));
    expect(contrastMaskStops(0.3, 0)).toBeCloseTo(0, 12);
    // With a stray light of half a per cent: log2(0.1892 ∕ 0.005) and log2(0.1892 ∕ 1.005).
    expect(contrastMaskStops(0, 1)).toBeCloseTo(5.2414, 3);
    expect(contrastMaskStops(1, 0.5)).toBeCloseTo(-1.2048, 3);
  });
});
