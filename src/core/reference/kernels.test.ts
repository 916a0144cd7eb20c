import { converter, type P3 } from "culori";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { BLEND_MODES } from "../blend/blend";
import { luminanceToTone } from "../colour/lstar";
import { apply3, IDENTITY3, invert3, type Matrix3 } from "../colour/matrix3";
import { SRGB_TO_P3 } from "../colour/primaries";
import { SRGB_CURVE, curveTable } from "../colour/transferCurve";
import { LMS_TO_LAB, P3_TO_LMS } from "../colour/oklab";
import { staysWithin, type Weights } from "../mix/weights";
import { ditherRow, noiseLine, noiseRow, NO_DITHER } from "../view/dither";
import { CELL_FLOATS, KernelHeap } from "../kernels/kernelHeap";
import { CHROMA_FADE, FLOOR_KNEE, SHOULDER_FROM } from "../kernels/constants";
import { knotsOf, pairTable, readTable } from "../kernels/pairTable";
import type { Planes } from "../kernels/planes";
import * as reference from "./kernels";
import { anyNumber } from "../../../tests/anyNumber";

// Every WebAssembly kernel against its plain twin, on seeded noise that includes the ends of the range.

const N = 4000;
/** float32 holds about 7 digits; sums and divisions lose one. */
const ROUNDING = 1e-6;

function noise(seed: number, n = N): Float32Array {
  let state = seed;
  const values = Float32Array.from({ length: n }, () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  });
  values.set([0, 1, 0.5, 1e-6, 1 - 1e-6], 0);
  return values;
}

function heapWith(...planes: Float32Array[]) {
  const heap = new KernelHeap(4 << 20);
  const pointers = planes.map((plane) => {
    const at = heap.reserve(4 * plane.length);
    heap.f32(at, plane.length).set(plane);
    return at;
  });
  return { heap, pointers };
}

function largestDifference(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
}

const planes = { red: noise(1), green: noise(2), blue: noise(3) };
/** A source whose primaries lie far outside P3; its white is P3's. */
const WIDE_TO_P3 = [1.5, -0.4, -0.1, -0.15, 1.2, -0.05, 0.02, -0.12, 1.1] as const;
const applied = (toP3: Matrix3): Planes => {
  const out = { red: new Float32Array(N), green: new Float32Array(N), blue: new Float32Array(N) };
  for (let i = 0; i < N; i++) {
    const [r, g, b] = apply3(toP3, [planes.red[i]!, planes.green[i]!, planes.blue[i]!]);
    out.red[i] = r;
    out.green[i] = g;
    out.blue[i] = b;
  }
  return out;
};
const weave = pairTable(777, (x) => 0.3 * Math.sin(7 * x) - 0.1);

describe.each([8, 16] as const)("decoding %i-bit levels", (depth) => {
  test("agrees with its twin", () => {
    const top = 2 ** depth - 1;
    const scaled = noise(4, 3 * N).map((v) => Math.round(v * top));
    const levels = depth === 8 ? Uint8Array.from(scaled) : Uint16Array.from(scaled);
    const table = curveTable(SRGB_CURVE, depth === 8 ? 256 : 65536);
    const expected = reference.decode(levels, [table, table, table], SRGB_TO_P3);
    const { heap, pointers } = heapWith(
      table,
      Float32Array.from(SRGB_TO_P3),
      new Float32Array(N),
      new Float32Array(N),
      new Float32Array(N),
    );
    const [lut, matrix, r, g, b] = pointers as [number, number, number, number, number];
    const src = heap.reserve(6 * N);
    if (levels instanceof Uint8Array) heap.u8(src, 3 * N).set(levels);
    else heap.u16(src, 3 * N).set(levels);
    heap.run[depth === 8 ? "decode8" : "decode16"](src, lut, lut, lut, matrix, r, g, b, N);
    expect(largestDifference(heap.f32(r, N), expected.red)).toBeLessThan(ROUNDING);
    expect(largestDifference(heap.f32(g, N), expected.green)).toBeLessThan(ROUNDING);
    expect(largestDifference(heap.f32(b, N), expected.blue)).toBeLessThan(ROUNDING);
  });
});

describe("mixing", () => {
  test.each([
    { red: 0.3, green: 0.6, blue: 0.1 },
    { red: 1.4, green: 0.2, blue: -0.6 },
    { red: -2, green: 2, blue: 1 },
    { red: 2, green: 2, blue: 2 },
    { red: 0, green: 0, blue: 0 },
    { red: -1, green: -1, blue: -1 },
  ])("agrees with its twin for $red, $green, $blue, of colours inside P3 and outside", (weights) => {
    const { red, green, blue } = weights;
    for (const toP3 of [IDENTITY3, WIDE_TO_P3]) {
      const made = applied(toP3);
      const fromP3 = invert3(toP3);
      const { heap, pointers } = heapWith(made.red, made.green, made.blue, new Float32Array(N), Float32Array.from(fromP3));
      const [r, g, b, out, matrix] = pointers as [number, number, number, number, number];
      heap.run.mixWeights(r, g, b, out, N, red, green, blue, FLOOR_KNEE, SHOULDER_FROM, matrix);
      // The brightest channel goes through a matrix and back: a few float32 steps more.
      expect(largestDifference(heap.f32(out, N), reference.mixWeights(made, weights, fromP3))).toBeLessThan(5e-6);
      if (!staysWithin(weights, toP3)) continue;
      heap.run.mixWithin(r, g, b, out, N, red, green, blue);
      expect(largestDifference(heap.f32(out, N), reference.mixWeights(made, weights, fromP3))).toBeLessThan(ROUNDING);
    }
  });
});

describe("hues", () => {
  const grey = { red: noise(5), green: noise(5), blue: noise(5) };
  const constants = Float32Array.from([...P3_TO_LMS, ...LMS_TO_LAB.slice(3), CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)]);
  const run = (from: Planes) => {
    const { heap, pointers } = heapWith(from.red, from.green, from.blue, constants, new Float32Array(N), new Float32Array(N));
    const [r, g, b, c, hue, fade] = pointers as [number, number, number, number, number, number];
    heap.run.hueFade(r, g, b, hue, fade, N, c);
    return { hue: heap.f32(hue, N), fade: heap.f32(fade, N) };
  };

  test("hue and fade agree with their twin", () => {
    const expected = reference.hueFade(planes);
    const got = run(planes);
    // The polynomial for the angle errs by 2e-6 turns; black has no hue worth comparing.
    const turnsApart = Array.from(got.hue, (hue, i) => (expected.fade[i]! > 0 ? Math.abs(((hue - expected.hue[i]! + 1.5) % 1) - 0.5) : 0));
    expect(Math.max(...turnsApart)).toBeLessThan(1e-5);
    expect(largestDifference(got.fade, expected.fade)).toBeLessThan(1e-4);
  });

  test("hue and fade are what an independent colour library says of the chroma", () => {
    const oklch = converter("oklch");
    const got = run(planes);
    let [half, most] = [0, 0];
    for (let i = 0; i < N; i++) {
      const encode = (v: number) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
      const { c, h = 0 } = oklch({ mode: "p3", r: encode(planes.red[i]!), g: encode(planes.green[i]!), b: encode(planes.blue[i]!) } as P3);
      const u = Math.min(Math.max((c - 0.008) / (0.06 - 0.008), 0), 1);
      expect(Math.abs(got.fade[i]! - u * u * (3 - 2 * u))).toBeLessThan(0.02);
      if (u > 0.3 && u < 0.7) half++;
      if (u === 1) most = Math.max(most, Math.abs(((got.hue[i]! - h / 360 + 1.5) % 1) - 0.5));
    }
    expect(half).toBeGreaterThan(20);
    expect(most).toBeLessThan(0.004); // the two published forms of OKLab differ by that
  });

  test("neutrals have no fade at all, so that the hue response leaves them exactly", () => {
    expect(Math.max(...run(grey).fade)).toBe(0);
  });

  test("the gain agrees with its twin", () => {
    const [y, hue, fade] = [noise(6), noise(7), noise(8)];
    const table = pairTable(360, (turn) => 3 * Math.sin(2 * Math.PI * turn));
    const { heap, pointers } = heapWith(y, hue, fade, table);
    const [yAt, hueAt, fadeAt, tableAt] = pointers as [number, number, number, number];
    heap.run.hueGain(yAt, hueAt, fadeAt, N, tableAt, knotsOf(table));
    // The polynomial for 2^x errs by 3e-6 in proportion.
    expect(largestDifference(heap.f32(yAt, N), reference.hueGain(y, hue, fade, table))).toBeLessThan(5e-6);
  });
});

describe("tables", () => {
  const tone = noise(9);
  const { heap, pointers } = heapWith(tone, weave, new Float32Array(N));
  const [toneAt, tableAt, outAt] = pointers as [number, number, number];

  test("a value looked up agrees with its twin, at both ends too", () => {
    heap.run.lookUp(toneAt, outAt, N, tableAt, knotsOf(weave));
    expect(largestDifference(heap.f32(outAt, N), reference.lookUp(tone, weave))).toBeLessThan(ROUNDING);
  });

  test("a change looked up and added agrees with its twin", () => {
    heap.run.addLookedUp(toneAt, outAt, N, tableAt, knotsOf(weave));
    expect(largestDifference(heap.f32(outAt, N), reference.addLookedUp(tone, weave))).toBeLessThan(ROUNDING);
  });

  test("values outside 0–1 count as the nearer end", () => {
    const { heap: own, pointers: at } = heapWith(Float32Array.of(-5, 2, -0, 1e9), weave);
    own.run.lookUp(at[0]!, at[0]!, 4, at[1]!, knotsOf(weave));
    const [low, high] = [readTable(weave, 0), readTable(weave, 1)];
    expect(largestDifference(own.f32(at[0]!, 4), [low, high, low, high])).toBeLessThan(ROUNDING);
  });
});

describe("output", () => {
  const tone = noise(10);
  const levels = pairTable(500, (t) => 255 * t ** 0.9);
  const fine = pairTable(500, (t) => 65535 * t ** 0.9);

  test.each([ditherRow(3), NO_DITHER, noiseRow({ y: 5, amplitude: 3 }, N)])("8-bit levels agree with their twin", (dither) => {
    const { heap, pointers } = heapWith(tone, levels, dither, new Float32Array(N));
    const [toneAt, tableAt, ditherAt, outAt] = pointers as [number, number, number, number];
    const mask = dither.length === N ? -1 : dither.length - 1;
    heap.run.grey8(toneAt, outAt, N, tableAt, knotsOf(levels), ditherAt, mask);
    const expected = reference.grey8(tone, levels, dither);
    const got = heap.u8(outAt, N).slice();
    // A value that lies on the border of two levels may round either way.
    expect(got.filter((level, i) => level !== expected[i]).length).toBeLessThan(N / 200);
    expect(largestDifference(got, expected)).toBeLessThanOrEqual(1);
    heap.run.greyToRgba(toneAt, outAt, N, tableAt, knotsOf(levels), ditherAt, mask);
    const rgba = heap.u8(outAt, 4 * N);
    expect(Array.from(got, (level) => [level, level, level, 255]).flat()).toEqual(Array.from(rgba));
  });

  test("noise is that of its twin to the bit", () => {
    const n = N & ~3;
    const offsets = Float32Array.from({ length: 8 }, (_, i) => i / 3);
    const { heap, pointers } = heapWith(new Float32Array(N), offsets, new Float32Array(N));
    const noise = { y: 4321, amplitude: 1.4 };
    heap.run.noiseRow(pointers[0]!, n, noiseLine(noise.y), noise.amplitude);
    expect(heap.f32(pointers[0]!, n)).toEqual(noiseRow(noise, n));
    heap.run.offsetRow(pointers[0]!, pointers[1]!, 7, pointers[2]!, n);
    expect(heap.f32(pointers[2]!, n)).toEqual(noiseRow(noise, n).map((v, i) => v + offsets[i % 8]!));
  });

  test("16-bit levels agree with their twin", () => {
    const { heap, pointers } = heapWith(tone, fine, new Float32Array(N));
    const [toneAt, tableAt, outAt] = pointers as [number, number, number];
    heap.run.grey16(toneAt, outAt, N, tableAt, knotsOf(fine));
    expect(largestDifference(heap.u16(outAt, N), reference.grey16(tone, fine))).toBeLessThanOrEqual(1);
  });

  test("colour pixels agree with their twin", () => {
    const { heap, pointers } = heapWith(planes.red, planes.green, planes.blue, levels, new Float32Array(N));
    const [r, g, b, tableAt, outAt] = pointers as [number, number, number, number, number];
    heap.run.colourToRgba(r, g, b, outAt, N, tableAt, knotsOf(levels));
    expect(largestDifference(heap.u8(outAt, 4 * N), reference.colourToRgba(planes, levels))).toBeLessThanOrEqual(1);
  });

  test("a histogram counts every value once, in the bin its twin says", () => {
    const { heap, pointers } = heapWith(tone);
    const counts = heap.reserve(16 * 400);
    heap.run.histogram(pointers[0]!, N, counts, 400);
    const lanes = heap.u32(counts, 1600);
    const sums = Array.from({ length: 400 }, (_, bin) => lanes[bin]! + lanes[400 + bin]! + lanes[800 + bin]! + lanes[1200 + bin]!);
    expect(sums).toEqual(Array.from(reference.histogram(tone, 400)));
  });
});

describe("the mix itself", () => {
  test("weights that sum to 1 leave neutrals exactly, however negative one of them is", () => {
    const weight = anyNumber(-2, 2);
    fc.assert(
      fc.property(weight, weight, anyNumber(0, 1), (red, green, level) => {
        const blue = 1 - red - green;
        fc.pre(Math.abs(blue) <= 2);
        const one = Float32Array.of(level);
        const [y] = reference.mixWeights({ red: one, green: one, blue: one }, { red, green, blue });
        expect(Math.abs(y! - one[0]!)).toBeLessThan(1e-6);
      }),
      { seed: 11 },
    );
  });

  test("never falls below black, keeps falling as more light is taken, and does not depend on brightness", () => {
    const at = (red: number, green: number, weight: number) =>
      reference.mixWeights(
        { red: Float32Array.of(red), green: Float32Array.of(green), blue: Float32Array.of(0) },
        { red: weight, green: 1, blue: 0 },
      )[0]!;
    let last = Infinity;
    for (let weight = 0; weight >= -2; weight -= 0.05) {
      const y = at(0.8, 0.5, weight);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(last);
      last = y;
    }
    expect(at(0.4, 0.25, -1.5) * 2).toBeCloseTo(at(0.8, 0.5, -1.5), 6);
  });

  test("no colour reaches white before its brightest channel is full; each grows with its light, and what stays within bends nowhere", () => {
    const at = (light: number, weights: Weights, [r, g, b]: readonly number[]) =>
      reference.mixWeights(
        { red: Float32Array.of(light * r!), green: Float32Array.of(light * g!), blue: Float32Array.of(light * b!) },
        weights,
      )[0]!;
    const weight = anyNumber(-2, 2);
    const channel = anyNumber(0, 1);
    fc.assert(
      fc.property(fc.record({ red: weight, green: weight, blue: weight }), fc.tuple(channel, channel), (weights, [g, b]) => {
        const colour = [1, g, b];
        const whole = weights.red + weights.green * g + weights.blue * b;
        let last = -1;
        for (let light = 0; light <= 1; light += 0.02) {
          const y = at(light, weights, colour);
          expect(y).toBeGreaterThanOrEqual(last);
          if (light < 0.985) expect(y).toBeLessThan(1);
          const plus = Math.max(weights.red, 0) + Math.max(weights.green, 0) * g + Math.max(weights.blue, 0) * b;
          if (whole <= 1 && whole > 0.26 * plus) expect(y).toBeCloseTo(light * whole, 5);
          last = y;
        }
        if (whole > 1.02) expect(at(1, weights, colour)).toBeCloseTo(1, 5);
      }),
      { seed: 13 },
    );
    expect(at(0.67, { red: 2, green: -0.5, blue: -0.5 }, [1, 0.25, 0.2])).toBeLessThan(0.9);
  });

  test("a gain of E and then of −E is the identity, and no gain reaches white or black", () => {
    fc.assert(
      fc.property(anyNumber(1e-4, 0.999), anyNumber(-3, 3), (y, stops) => {
        const one = Float32Array.of(1);
        const gain = (value: number, by: number) =>
          reference.hueGain(
            Float32Array.of(value),
            Float32Array.of(0),
            one,
            pairTable(4, () => by),
          )[0]!;
        const there = gain(y, stops);
        expect(there).toBeGreaterThan(0);
        expect(there).toBeLessThan(1);
        expect(Math.abs(gain(there, -stops) - y)).toBeLessThan(1e-5);
      }),
      { seed: 12 },
    );
  });
});

describe("spatial steps", () => {
  const tone = noise(31);
  test("a row read between cells agrees with its twin, held at both ends", () => {
    const row = pairTable(60, (x) => 0.5 + 0.4 * Math.sin(9 * x));
    const { heap, pointers } = heapWith(row, new Float32Array(N));
    heap.run.sampleRow(pointers[0]!, pointers[1]!, N, -3.2, 0.017, 60);
    // Places on a row of 60 cells are held in float32: about 4e-6 of a cell.
    expect(largestDifference(heap.f32(pointers[1]!, N), reference.sampleRow(row, N, -3.2, 0.017))).toBeLessThan(1e-5);
  });
  test("surroundings and shares agree with their twins", () => {
    const offset = noise(33);
    const rowOfCells = (turn: number) => Float32Array.from({ length: 61 * CELL_FLOATS }, (_, i) => 0.5 + 0.4 * Math.sin(turn * i));
    const [upper, lower] = [rowOfCells(0.7), rowOfCells(0.9)];
    const { heap, pointers } = heapWith(tone, upper, lower, offset, new Float32Array(N), weave, new Float32Array(2 * upper.length));
    const [t, a, b, o, out, table, pairs] = pointers as [number, number, number, number, number, number, number];
    heap.run.pairRows(a, b, 0.3, pairs, 61);
    const between = reference.pairRows(upper, lower, 0.3);
    expect(heap.f32(pairs, between.length)).toEqual(between);
    for (const slices of [2, 11]) {
      heap.run.sampleSlices(pairs, t, out, N, -3.2, 0.017, 60, slices);
      // Places on a row of 60 cells are held in float32, and steps from cell to cell are steep here.
      expect(largestDifference(heap.f32(out, N), reference.sampleSlices(between, slices, tone, -3.2, 0.017))).toBeLessThan(2e-5);
    }
    const slope = noise(32);
    const at = heap.reserve(4 * N);
    heap.f32(at, N).set(slope);
    heap.run.guided(t, at, o, out, N);
    expect(largestDifference(heap.f32(out, N), reference.guided(tone, slope, offset))).toBeLessThan(ROUNDING);
    heap.run.scaleLookedUp(o, t, N, table, knotsOf(weave));
    expect(largestDifference(heap.f32(o, N), reference.scaleLookedUp(offset, tone, weave))).toBeLessThan(ROUNDING);
  });
  test("a table by mask and a product agree with their twins; a mask of 0 leaves every tone", () => {
    // Every third place lies outside, so that nothing and something meet in every way.
    const mask = noise(36).map((share, i) => (i % 3 === 0 ? 0 : share));
    const { heap, pointers } = heapWith(tone, mask, new Float32Array(N), weave);
    const [t, m, out, table] = pointers as [number, number, number, number];
    heap.run.addLookedUpBy(t, m, out, N, table, knotsOf(weave));
    expect(largestDifference(heap.f32(out, N), reference.addLookedUpBy(tone, mask, weave))).toBeLessThan(ROUNDING);
    heap.run.add(t, m, out, N);
    expect(largestDifference(heap.f32(out, N), reference.add(tone, mask))).toBeLessThan(ROUNDING);
    heap.run.multiply(t, m, out, N);
    expect(largestDifference(heap.f32(out, N), reference.multiply(tone, mask))).toBeLessThan(ROUNDING);
    heap.f32(out, N).set(noise(37));
    heap.run.addTable(out, t, N, table, knotsOf(weave));
    expect(largestDifference(heap.f32(out, N), reference.addTable(noise(37), tone, weave))).toBeLessThan(ROUNDING);
    heap.f32(out, N).set(noise(37));
    heap.run.mixBy(t, out, m, out, N);
    expect(largestDifference(heap.f32(out, N), reference.mixBy(tone, noise(37), mask))).toBeLessThan(ROUNDING);
    heap.f32(m, N).set(mask.map((v) => 4 * v)); // strengths beyond 1
    heap.f32(out, N).set(noise(37));
    heap.run.mixBy(t, out, m, out, N);
    expect(
      largestDifference(
        heap.f32(out, N),
        reference.mixBy(
          tone,
          noise(37),
          mask.map((v) => 4 * v),
        ),
      ),
    ).toBeLessThan(ROUNDING);
    heap.f32(m, N).fill(0);
    heap.run.addLookedUpBy(t, m, out, N, table, knotsOf(weave));
    expect(largestDifference(heap.f32(out, N), tone)).toBe(0);
  });
  test("stops read through rows, scaled and added to agree with their twins; at a row they are what the row says", () => {
    const [side, knots, most] = [5, 40, 3];
    const row = (stops: number) => pairTable(knots, (t) => stops * Math.sin(5 * t) - 0.1 * stops * stops);
    const tables = Float32Array.from(Array.from({ length: 2 * side + 1 }, (_, r) => [...row((most * (r - side)) / side)]).flat());
    const stops = noise(38).map((v) => 8 * v - 4); // beyond the outermost rows too
    const by = noise(39);
    const { heap, pointers } = heapWith(tone, stops, tables, by, weave);
    const [t, s, rows, b, table] = pointers as [number, number, number, number, number];
    heap.run.throughRows(s, t, N, rows, knots, side, most);
    // Places between rows are held in float32: a few millionths of a stop.
    expect(largestDifference(heap.f32(s, N), reference.throughRows(stops, tone, { tables, knots, side, most }))).toBeLessThan(5e-6);
    heap.f32(s, N).fill(-most);
    heap.run.throughRows(s, t, N, rows, knots, side, most);
    expect(largestDifference(heap.f32(s, N), reference.lookUp(tone, row(-most)))).toBeLessThan(2e-6);
    heap.f32(s, N).set(stops);
    heap.run.scaleAdd(s, N, -1.5, 0.25);
    expect(largestDifference(heap.f32(s, N), reference.scaleAdd(stops, -1.5, 0.25))).toBeLessThan(ROUNDING);
    heap.f32(s, N).set(stops);
    heap.run.addTableBy(s, b, t, N, table, knotsOf(weave));
    expect(largestDifference(heap.f32(s, N), reference.addTableBy(stops, by, tone, weave))).toBeLessThan(ROUNDING);
  });
  test("exposure agrees with its twin, reaches neither end from inside, and is undone by its opposite", () => {
    const stops = noise(34).map((v) => 12 * v - 6);
    const { heap, pointers } = heapWith(tone, stops, new Float32Array(N));
    const [t, e, out] = pointers as [number, number, number];
    heap.run.exposeBy(t, e, out, N, 0);
    const exposed = heap.f32(out, N).slice();
    // Powers, roots and a quotient in float32: half a step of 18 bits.
    expect(largestDifference(exposed, reference.exposeBy(tone, stops))).toBeLessThan(4e-6);
    heap.run.exposeBy(t, e, out, N, 1);
    expect(largestDifference(heap.f32(out, N), reference.exposeBy(tone, stops, true))).toBeLessThan(4e-6);
    heap.run.exposeBy(t, e, out, N, 0);
    for (let i = 0; i < N; i++) {
      if (tone[i]! > 1e-6 && tone[i]! < 0.999) expect(exposed[i]! > 0 && exposed[i]! < 1).toBe(true);
    }
    heap.f32(e, N).set(stops.map((s) => -s));
    heap.run.exposeBy(out, e, out, N, 0);
    // Six stops up bring light tones within a few float32 steps of 1: undone there to what those steps hold.
    const undone = heap.f32(out, N);
    for (let i = 0; i < N; i++) if (Math.abs(stops[i]!) <= 2) expect(Math.abs(undone[i]! - tone[i]!)).toBeLessThan(1e-5);
  });
  test("the light of two tones agrees with its twin, and is that of one where there is no share of the other", () => {
    const [other, share, table] = [noise(41), noise(42), pairTable(16384, luminanceToTone)];
    const { heap, pointers } = heapWith(tone, other, share, new Float32Array(N), table);
    const [t, o, s, out, at] = pointers as [number, number, number, number, number];
    heap.run.meanLight(t, o, s, out, N, at, knotsOf(table));
    expect(largestDifference(heap.f32(out, N), reference.meanLight(tone, other, share))).toBeLessThan(2e-6);
    heap.f32(s, N).fill(0);
    heap.run.meanLight(t, o, s, out, N, at, knotsOf(table));
    expect(largestDifference(heap.f32(out, N), tone)).toBeLessThan(2e-6);
  });
  test("so much of the way from one plane to another, and pairs of values, agree with their twins", () => {
    const [other, share] = [noise(43), noise(44)];
    const { heap, pointers } = heapWith(tone, other, share, new Float32Array(2 * N + 8));
    const [t, o, s, out] = pointers as [number, number, number, number];
    heap.run.between(t, o, s, out, N);
    expect(largestDifference(heap.f32(out, N), reference.between(tone, other, share))).toBeLessThan(1e-6);
    const n = N - 4;
    for (const less of [undefined, other.subarray(0, n + 1)]) {
      heap.run.pairsOf(t, less ? o : 0, out, n);
      expect(largestDifference(heap.f32(out, 2 * (n + 1)), reference.pairsOf(tone.subarray(0, n + 1), less))).toBeLessThan(1e-6);
    }
  });
  test.each(BLEND_MODES.map((mode, i) => [mode, i] as const))("%s agrees with its twin", (mode, i) => {
    const above = noise(35);
    above.set([1, 0, 0, 1, 0.5], 0);
    const { heap, pointers } = heapWith(tone, above, new Float32Array(N));
    heap.run.blendPlanes(pointers[0]!, pointers[1]!, pointers[2]!, N, i);
    // Dodge and burn divide by what may be a millionth: relative, not absolute, rounding.
    expect(largestDifference(heap.f32(pointers[2]!, N), reference.blendPlanes(tone, above, mode))).toBeLessThan(1e-4);
  });
});
