import { describe, expect, test } from "vitest";
import { luminanceToTone, toneToLuminance } from "../colour/lstar";
import { apply3, type Vector3 } from "../colour/matrix3";
import { linearP3ToOklab } from "../colour/oklab";
import { CHROMA_CONSTANTS, chromaConstants, lightOfColour, OUTPUT_SPACES, OUTPUT_TO_P3, tonesOfColour } from "../colour/printColour";
import { P3_LUMINANCE } from "../colour/primaries";
import { encodedLevels, encodedLight } from "../view/toneTables";
import { KernelHeap } from "../kernels/kernelHeap";
import { readTable, knotsOf } from "../kernels/pairTable";

// Kernels of colour beside the tone, against a plain reckoning in doubles.

const N = 4000;
let state = 5;
const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
const tone = Float32Array.from({ length: N }, () => random());
const polar = Array.from({ length: N }, (_, i) => ({ chroma: i % 5 === 0 ? 0 : 0.25 * random() ** 2, angle: 2 * Math.PI * random() }));
const a = Float32Array.from(polar, ({ chroma, angle }) => chroma * Math.cos(angle));
const b = Float32Array.from(polar, ({ chroma, angle }) => chroma * Math.sin(angle));
const greys = encodedLevels(65535);
const levels = encodedLight(65535, 16384);

/** A heap with planes in it, and their places. */
function heapWith(...planes: Float32Array[]) {
  const heap = new KernelHeap(planes.reduce((sum, plane) => sum + 4 * plane.length + 64, 4096));
  const at = planes.map((plane) => {
    const place = heap.reserve(4 * plane.length + 32);
    heap.f32(place, plane.length).set(plane);
    return place;
  });
  return { heap, at: at as [number, number, number, number, number, number, number, number, number, number] };
}
const empty = () => new Float32Array(N);
const constantsOf = (space: (typeof OUTPUT_SPACES)[number]) => Float32Array.from(chromaConstants(space));

test("the constants are as many as the kernels read", () => {
  expect(CHROMA_CONSTANTS).toBe(9 + 9 + 6 + 3 + 9 + 3);
});

describe.each(OUTPUT_SPACES)("in %s", (space) => {
  const { heap, at } = heapWith(tone, a, b, new Float32Array(2 * N), constantsOf(space), levels, greys);
  const [t, p, q, out, constants, light, grey] = at;
  heap.run.colour16(t, p, q, out, N, constants, light, knotsOf(levels), grey, knotsOf(greys));
  const made = heap.u16(out, 3 * N).slice();
  heap.run.grey16(t, out, N, grey, knotsOf(greys));
  const inGrey = heap.u16(out, N).slice();

  test("16-bit levels are those of the colour where it can be shown, and of the grey where there is none", () => {
    let [shown, far] = [0, 0];
    for (let i = 0; i < N; i++) {
      const expected = tonesOfColour(tone[i]!, { a: a[i]!, b: b[i]! }, space);
      const isShown = lightOfColour(tone[i]!, { a: a[i]!, b: b[i]! }, space).every((channel) => channel >= 0 && channel <= 1);
      if (a[i] === 0) expect([...made.subarray(3 * i, 3 * i + 3)]).toEqual(Array(3).fill(inGrey[i]));
      else if (isShown && tone[i]! > 0.02) {
        shown++;
        expected.forEach((channel, c) => (far = Math.max(far, Math.abs(readTable(greys, channel) - made[3 * i + c]!))));
      }
    }
    expect(shown).toBeGreaterThan(1000);
    expect(far).toBeLessThan(40); // of 65,535, at chroma of up to 0.25; tints are within 8
  });

  test("no pixel is changed by those that lie beside it: the same in any order", () => {
    // Multiplied by a number that shares no factor with N, places are another order of places; faint, strong and out of range meet anew.
    const order = Array.from({ length: N }, (_, i) => (i * 1231 + 7) % N);
    const mixed = (plane: Float32Array) => Float32Array.from(order, (from) => plane[from]!);
    const other = heapWith(mixed(tone), mixed(a), mixed(b), new Float32Array(2 * N), constantsOf(space), levels, greys);
    const [t2, p2, q2, out2, constants2, light2, grey2] = other.at;
    other.heap.run.colour16(t2, p2, q2, out2, N, constants2, light2, knotsOf(levels), grey2, knotsOf(greys));
    const inOrder = other.heap.u16(out2, 3 * N);
    order.forEach((from, i) => expect([...inOrder.subarray(3 * i, 3 * i + 3)]).toEqual([...made.subarray(3 * from, 3 * from + 3)]));
  });

  test("keep the tone's luminance, shown or not", () => {
    const [r, g, b3] = [0, 1, 2].map((c) => apply3(OUTPUT_TO_P3[space], [Number(c === 0), Number(c === 1), Number(c === 2)] as Vector3));
    const lightOf = [r!, g!, b3!].map((column) => column.reduce((sum, part, row) => sum + part * P3_LUMINANCE[row]!, 0));
    for (let i = 0; i < N; i++) {
      const y = lightOf.reduce((sum, weight, c) => sum + weight * decoded(made[3 * i + c]! / 65535), 0);
      expect(Math.abs(100 * (luminanceToTone(y) - tone[i]!))).toBeLessThan(0.02);
    }
  });

  test("out of range, keep the hue and most of the chroma there is room for", () => {
    const kept: number[] = [];
    for (let i = 0; i < N; i++) {
      const chroma = Math.hypot(a[i]!, b[i]!);
      const best = labOf(tonesOfColour(tone[i]!, { a: a[i]!, b: b[i]! }, space).map(toneToLuminance) as unknown as Vector3);
      const [there, found] = [
        Math.hypot(best[1], best[2]),
        labOf([0, 1, 2].map((c) => decoded(made[3 * i + c]! / 65535)) as unknown as Vector3),
      ];
      if (there > chroma - 0.005 || there < 0.03 || tone[i]! < 0.05) continue;
      kept.push(Math.hypot(found[1], found[2]) / there);
      const turn = Math.atan2(found[2], found[1]) - Math.atan2(b[i]!, a[i]!);
      expect(Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)))).toBeLessThan((2 * Math.PI) / 180);
    }
    kept.sort((x, y) => x - y);
    expect(kept.length).toBeGreaterThan(300);
    expect(kept[kept.length >> 1]).toBeGreaterThan(0.97);
    expect(kept[Math.floor(0.05 * kept.length)]).toBeGreaterThan(0.7);
  });

  const labOf = (channels: Vector3) => linearP3ToOklab(apply3(OUTPUT_TO_P3[space], channels));
});

test("pixels of 4 bytes are the levels of the same colours, and offsets that all channels share leave greys grey", () => {
  const eight = encodedLight(255, 4096);
  const greys8 = encodedLevels(255);
  const dither = Float32Array.from({ length: N }, () => random() - 0.5);
  const { heap, at } = heapWith(tone, a, b, empty(), constantsOf("srgb"), eight, greys8, dither);
  const [t, p, q, out, constants, light, grey, row] = at;
  heap.run.colourRgba(t, p, q, out, N, constants, light, 4096, grey, knotsOf(greys8), row, -1);
  const made = heap.u8(out, 4 * N).slice();
  heap.run.colour8(t, p, q, out, N, constants, light, 4096, grey, knotsOf(greys8), row, -1, 0);
  const three = heap.u8(out, 3 * N);
  for (let i = 0; i < N; i++) {
    expect(made[4 * i + 3]).toBe(255);
    for (let c = 0; c < 3; c++) if (three[3 * i + c] !== made[4 * i + c]) throw new Error(`channel ${c} of pixel ${i}`);
    if (a[i] === 0) expect([made[4 * i + 1], made[4 * i + 2]]).toEqual([made[4 * i], made[4 * i]]);
    else if (tone[i]! > 0.1 && Math.hypot(a[i]!, b[i]!) < 0.02) {
      const expected = tonesOfColour(tone[i]!, { a: a[i]!, b: b[i]! }, "srgb").map((channel) => readTable(greys8, channel));
      expected.forEach((level, c) => expect(Math.abs(made[4 * i + c]! - level - dither[i]!)).toBeLessThan(0.55));
    }
  }
});

test("light is that of the colour, and its chroma found again", () => {
  const { heap, at } = heapWith(tone, a, b, empty(), empty(), empty(), empty(), empty(), constantsOf("display-p3"));
  const [t, p, q, r, g, blue, foundA, foundB, constants] = at;
  heap.run.colourLight(t, p, q, r, g, blue, N, constants);
  heap.run.chromaOf(r, g, blue, foundA, foundB, 0, N, constants);
  for (let i = 0; i < N; i++) {
    if (tone[i]! < 0.1) continue;
    const expected = lightOfColour(tone[i]!, { a: a[i]!, b: b[i]! }, "display-p3");
    [r, g, blue].forEach((plane, c) => expect(Math.abs(heap.f32(plane, N)[i]! - expected[c]!)).toBeLessThan(2e-3));
    if (Math.hypot(a[i]!, b[i]!) > 0.1) continue;
    expect(Math.hypot(heap.f32(foundA, N)[i]! - a[i]!, heap.f32(foundB, N)[i]! - b[i]!)).toBeLessThan(5e-4);
    if (a[i] === 0) expect([heap.f32(foundA, N)[i], heap.f32(foundB, N)[i]]).toEqual([0, 0]);
  }
});

test("what is laid adds or takes the place of what is there, as far as it comes through", () => {
  const [there, laid, amount] = [a, b, Float32Array.from({ length: N }, () => 2 * random())];
  for (const replaces of [0, 1]) {
    const { heap, at } = heapWith(there, laid, amount);
    heap.run.layChroma(at[0], at[1], 0, at[2], N, replaces);
    const made = heap.f32(at[0], N);
    for (let i = 0; i < N; i++) {
      const left = there[i]! * (1 - replaces * Math.min(amount[i]!, 1));
      expect(made[i]).toBeCloseTo(left + amount[i]! * laid[i]!, 6);
    }
  }
});

test("two tones in one pixel come to the chroma of their light together", () => {
  const [one, other, share] = [tone, Float32Array.from(tone, () => random()), Float32Array.from(tone, () => 0.1 + 0.8 * random())];
  const light = (t: number) => toneToLuminance(t);
  const mean = Float32Array.from(one, (t, i) => luminanceToTone(light(t) + share[i]! * (light(other[i]!) - light(t))));
  const [c, d] = [a, b].map((plane) => Float32Array.from(plane, (_, i) => 0.15 * plane[(i * 7 + 3) % N]!));
  const { heap, at } = heapWith(
    one,
    other,
    share,
    mean,
    Float32Array.from(a, (v) => 0.2 * v),
    Float32Array.from(b, (v) => 0.2 * v),
    c!,
    d!,
  );
  heap.run.meanChroma(...(at.slice(0, 8) as [number, number, number, number, number, number, number, number]), N);
  let worst = 0;
  for (let i = 0; i < N; i++) {
    if (mean[i]! < 0.15) continue;
    const [p, q] = [
      lightOfColour(one[i]!, { a: 0.2 * a[i]!, b: 0.2 * b[i]! }, "display-p3"),
      lightOfColour(other[i]!, { a: c![i]!, b: d![i]! }, "display-p3"),
    ];
    const [, exactA, exactB] = linearP3ToOklab(p.map((channel, k) => channel + share[i]! * (q[k]! - channel)) as unknown as Vector3);
    worst = Math.max(worst, Math.hypot(heap.f32(at[4], N)[i]! - exactA, heap.f32(at[5], N)[i]! - exactB));
  }
  expect(worst).toBeLessThan(0.006);
});

test("returned colour is no more than its own on lighter tones, and in proportion on darker ones", () => {
  const planes = [0, 1, 2].map(() => Float32Array.from({ length: N }, () => 0.02 + 0.9 * random())) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const { heap, at } = heapWith(...planes, tone, empty(), empty(), empty(), empty(), empty(), empty(), constantsOf("display-p3"));
  const [r, g, blue, t, ownA, ownB, root, share, outA, outB] = at;
  const amount = at[0];
  heap.run.chromaOf(r, g, blue, ownA, ownB, root, N, (at as readonly number[])[10]!);
  heap.run.followTone(root, t, share, N, 1.5);
  heap.f32(amount, N).fill(1);
  heap.run.layChroma(outA, ownA, share, amount, N, 1);
  heap.run.layChroma(outB, ownB, share, amount, N, 1);
  for (let i = 0; i < N; i++) {
    const colour = planes.map((plane) => plane[i]!) as unknown as Vector3;
    const own = colour.reduce((sum, channel, c) => sum + channel * P3_LUMINANCE[c]!, 0);
    const scale = 1.5 * Math.cbrt(Math.min(toneToLuminance(tone[i]!) / own, 1));
    const [, exactA, exactB] = linearP3ToOklab(colour);
    expect(Math.hypot(heap.f32(outA, N)[i]! - scale * exactA, heap.f32(outB, N)[i]! - scale * exactB)).toBeLessThan(1e-5);
  }
});

/** Linear light of a stored level. Source: IEC 61966-2-1. */
function decoded(level: number): number {
  return level <= 0.04045 ? level / 12.92 : ((level + 0.055) / 1.055) ** 2.4;
}
