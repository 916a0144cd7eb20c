import { describe, expect, test } from "vitest";
import { apply3, IDENTITY3, invert3, type Vector3 } from "../colour/matrix3";
import { emptyPlanes, type Planes } from "../kernels/planes";
import { LMS_TO_LAB, linearP3ToOklab, P3_TO_LMS } from "../colour/oklab";
import { SRGB_SPACE } from "../colour/sourceSpace";
import { CHANNELS, lightIn, LUMINANCE_WEIGHTS } from "../mix/weights";
import { CLEAN_APRON, ColourCleaner } from "./cleanColour";
import { type ColourNoise } from "./colourNoise";

const W = 90;
const H = 70;
type At = (x: number, y: number) => Vector3;

/** Linear P3 of OKLCH. */
function lch(lightness: number, chroma: number, degrees: number): Vector3 {
  const angle = (degrees * Math.PI) / 180;
  return ofLab([lightness, chroma * Math.cos(angle), chroma * Math.sin(angle)]);
}

function ofLab(lab: Vector3): Vector3 {
  const [l, m, s] = apply3(invert3(LMS_TO_LAB), lab);
  return apply3(invert3(P3_TO_LMS), [l ** 3, m ** 3, s ** 3]);
}

function picture(at: At, width = W, height = H): Planes {
  const planes = { red: new Float32Array(width * height), green: new Float32Array(width * height), blue: new Float32Array(width * height) };
  for (let i = 0; i < width * height; i++) {
    const [r, g, b] = at(i % width, Math.floor(i / width));
    [planes.red[i], planes.green[i], planes.blue[i]] = [r, g, b];
  }
  return planes;
}

const labAt = ({ red, green, blue }: Planes, i: number) => linearP3ToOklab([red[i]!, green[i]!, blue[i]!]);
const lightAt = ({ red, green, blue }: Planes, i: number, { red: r, green: g, blue: b } = LUMINANCE_WEIGHTS) =>
  r * red[i]! + g * green[i]! + b * blue[i]!;
/** So much noise at every lightness, less of it in means. */
const evenNoise = (deviation: number): ColourNoise => ({
  ofPixels: new Float32Array(17).fill(deviation),
  ofMeans: new Float32Array(17).fill(deviation / 3),
});
const cleaned = (colour: Planes, width = W, height = H, toP3 = IDENTITY3, noise = evenNoise(0)) =>
  cleanedRows(new ColourCleaner(width, height, toP3, noise), colour, height, 0, height);

function cleanedRows(cleaner: ColourCleaner, band: Planes, rows: number, from: number, to: number): Planes {
  const { width } = cleaner;
  const out = emptyPlanes((to - from) * width);
  const read = (row: number, into: Planes) =>
    CHANNELS.forEach((name) => into[name].set(band[name].subarray(row * width, (row + 1) * width)));
  cleaner.clean(rows, read, from, to, (row, colour) => CHANNELS.forEach((name) => out[name].set(colour[name], (row - from) * width)));
  return out;
}

/** Noise of a seed, about a standard deviation of 1. */
function noise(seed: number): () => number {
  let state = seed;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}

/** Leaves before a sky with noise in all, and something violet that is as light as the leaves. */
const scene = (): Planes => {
  const gauss = noise(7);
  return picture((x, y) => {
    const [L, a, b] = linearP3ToOklab(y > 40 ? lch(0.5, 0.1, x < 45 ? 140 : 310) : lch(0.55 + x / 300, 0.07, 240 - x));
    return ofLab([L + 0.004 * gauss(), a + 0.01 * gauss(), b + 0.01 * gauss()]);
  });
};

describe("what a mix reads of colour, cleaned", () => {
  test("is what the filter says, reckoned with doubles at full size", () => {
    const colour = scene();
    const [now, reckoned] = [cleaned(colour, W, H, IDENTITY3, evenNoise(0.01)), plainly(colour, 0.01)];
    let [worst, sum] = [0, 0];
    for (let i = 0; i < W * H; i++) {
      const [, a, b] = labAt(now, i);
      const off = Math.hypot(a - reckoned.a[i]!, b - reckoned.b[i]!);
      worst = Math.max(worst, off);
      sum += off;
    }
    // It is gathered at half the size: the difference is a fifth of the noise that is taken away, and hardly any on the whole.
    expect(sum / (W * H)).toBeLessThan(8e-4);
    expect(worst).toBeLessThan(0.006);
  });

  test("keeps the light of every pixel, and stays a colour of the source", () => {
    const gauss = noise(3);
    const bright = () => Math.min(Math.max(0.5 + 0.6 * gauss(), 0), 1);
    for (const toP3 of [IDENTITY3, SRGB_SPACE.toP3]) {
      const colour = picture((x) => (x < 30 ? [bright(), bright(), bright()] : x < 60 ? [1, bright() / 9, 0] : [0, 0, bright()]));
      const now = cleaned(colour, W, H, toP3);
      for (let i = 0; i < W * H; i++) {
        expect(Math.abs(lightAt(now, i, lightIn(toP3)) - lightAt(colour, i, lightIn(toP3)))).toBeLessThan(4e-6);
        for (const name of ["red", "green", "blue"] as const) {
          expect(now[name][i]!).toBeGreaterThanOrEqual(-1e-6);
          expect(now[name][i]!).toBeLessThanOrEqual(1 + 1e-6);
        }
      }
    }
  });

  test("leaves neutrals exactly neutral", () => {
    const gauss = noise(5);
    const grey = picture(() => {
      const v = Math.min(Math.max(0.3 + 0.2 * gauss(), 0), 1);
      return [v, v, v];
    });
    const now = cleaned(grey);
    expect(now.red).toEqual(now.green);
    expect(now.red).toEqual(now.blue);
  });

  test("moves a level field by nothing, however odd its size", () => {
    for (const [width, height] of [
      [1, 1],
      [3, 2],
      [17, 33],
    ] as const) {
      const colour = picture(() => lch(0.6, 0.1, 30), width, height);
      const now = cleaned(colour, width, height);
      for (const name of ["red", "green", "blue"] as const)
        now[name].forEach((v, i) => expect(Math.abs(v - colour[name][i]!)).toBeLessThan(2e-6));
    }
  });

  test("keeps an edge between two colours of one light within a pixel, without overshoot", () => {
    const colour = picture((x) => lch(0.65, 0.11, x < 45 ? 25 : 145));
    const now = cleaned(colour);
    const along = Array.from({ length: W }, (_, x) => labAt(now, 30 * W + x)[1]);
    const [low, high] = [Math.min(along[5]!, along[85]!), Math.max(along[5]!, along[85]!)];
    expect(high - low).toBeGreaterThan(0.15);
    for (const a of along) expect(Math.max(a - high, low - a)).toBeLessThan(0.01 * (high - low));
    expect(along.filter((a) => a > low + 0.2 * (high - low) && a < high - 0.2 * (high - low))).toEqual([]);
  });

  test("is the same in bands as in one", () => {
    const tall = 300;
    const gauss = noise(9);
    const colour = picture((x, y) => ofLab([0.5 + 0.2 * Math.sin(y / 9), 0.1 * Math.sin(x / 7) + 0.02 * gauss(), 0.02 * gauss()]), W, tall);
    const whole = cleaned(colour, W, tall, IDENTITY3, evenNoise(0.02));
    const [from, to] = [122, 178];
    const first = from - CLEAN_APRON;
    const rows = to + CLEAN_APRON - first;
    const part = (plane: Float32Array) => plane.subarray(first * W, (first + rows) * W);
    const band = { red: part(colour.red), green: part(colour.green), blue: part(colour.blue) };
    const now = cleanedRows(new ColourCleaner(W, rows, IDENTITY3, evenNoise(0.02)), band, rows, CLEAN_APRON, rows - CLEAN_APRON);
    for (const name of CHANNELS) now[name].forEach((v, i) => expect(Math.abs(v - whole[name][from * W + i]!)).toBeLessThan(1e-6));
  });
});

/** Two rounds of a guided filter as the papers have it: every mean at every pixel, by sums of doubles, systems solved by Gauss. */
function plainly(colour: Planes, noise: number): { a: number[]; b: number[] } {
  const lab = Array.from({ length: W * H }, (_, i) => labAt(colour, i));
  const [L, a, b] = [0, 1, 2].map((k) => lab.map((v) => v[k]!)) as [number[], number[], number[]];
  const first = [a, b].map((plane) => followed([L, a, b], plane, [1e-4, 3e-3, 3e-3])) as [number[], number[]];
  const [x, y] = [a, b].map((plane) => followed([L, ...first], plane, [1e-4, 4e-4, 4e-4]));
  return broughtBack(L, [a, b], [x!, y!], noise);
}

/** What was smoothed away, where it is more than noise, a little, and what lightness varies by around it. */
function broughtBack(L: number[], found: [number[], number[]], smoothed: [number[], number[]], noise: number) {
  const lost = found.map((plane, c) => plane.map((v, i) => v - smoothed[c]![i]!));
  const means = lost.map((plane) => around(plane, 1, true));
  const [mean, square] = [around(L), around(L.map((v) => v * v))];
  const back = (c: number) =>
    smoothed[c]!.map((v, i) => {
      const edges = 0.4 * Math.sqrt(Math.max(square[i]! - mean[i]! ** 2, 0));
      const out = (planes: number[][], deviation: number) => {
        const u = Math.min(Math.max((Math.hypot(planes[0]![i]!, planes[1]![i]!) / (0.02 + 4.5 * deviation + edges) - 1) / 0.6, 0), 1);
        return u * u * (3 - 2 * u);
      };
      return v + Math.max(out(lost, noise), out(means, noise / 3)) * lost[c]![i]!;
    });
  return { a: back(0), b: back(1) };
}

function followed(guides: number[][], plane: number[], ridges: number[]): number[] {
  const times = (p: number[], q: number[]) => p.map((v, i) => v * q[i]!);
  const means = guides.map((p) => around(p));
  const mean = around(plane);
  const own = guides.map((p, i) => around(times(p, plane)).map((v, k) => v - means[i]![k]! * mean[k]!));
  const both = guides.map((p, i) =>
    guides.map((q, j) => around(times(p, q)).map((v, k) => v - means[i]![k]! * means[j]![k]! + (i === j ? ridges[i]! : 0))),
  );
  const slopes = plane.map((_, k) =>
    solved(
      both.map((row) => row.map((cell) => cell[k]!)),
      own.map((v) => v[k]!),
    ),
  );
  const offsets = around(slopes.map((slope, k) => mean[k]! - slope.reduce((sum, s, i) => sum + s * means[i]![k]!, 0)));
  const spread = guides.map((_, i) => around(slopes.map((slope) => slope[i]!)));
  return plane.map((_, k) => guides.reduce((sum, p, i) => sum + spread[i]![k]! * p[k]!, offsets[k]!));
}

/** Means around each place; at the borders of what is there, or as if its ends went on. */
function around(plane: number[], reach = 8, goesOn = false): number[] {
  const sums = (length: number, read: (i: number) => number, at: number) => {
    let [sum, n] = [0, 0];
    for (let i = at - reach; i <= at + reach; i++) {
      if (!goesOn && (i < 0 || i >= length)) continue;
      sum += read(Math.min(Math.max(i, 0), length - 1));
      n++;
    }
    return sum / n;
  };
  const rows = plane.map((_, k) => sums(W, (x) => plane[k - (k % W) + x]!, k % W));
  return plane.map((_, k) => sums(H, (y) => rows[y * W + (k % W)]!, Math.floor(k / W)));
}

function solved(matrix: number[][], right: number[]): number[] {
  const m = matrix.map((row, i) => [...row, right[i]!]);
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++) {
      if (i === j) continue;
      const by = m[j]![i]! / m[i]![i]!;
      for (let k = i; k < 4; k++) m[j]![k]! -= by * m[i]![k]!;
    }
  return m.map((row, i) => row[3]! / row[i]!);
}
