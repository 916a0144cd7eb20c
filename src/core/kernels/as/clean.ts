// Colour differences smoothed by a guide of three planes: core/clean. Planes of one kind lie `stride` bytes apart, in the order lightness,
// a, b.
import { clamp01, cube, cubeRoot, gatherUnit, row3 } from "./lanes";

// Constants: the source's channels to LMS (9), LMS to lightness, a, b (9), the inverse of each (9, 9), what each channel gives to luminance
// (3).
const TO_LAB: usize = 36;
const LAB_TO_LMS: usize = 72;
const FROM_LMS: usize = 108;
const LIGHT: usize = 144;

/** Three planes of linear colour → lightness, a, b. */
export function labOf(colour: usize, out: usize, stride: usize, n: i32, constants: usize): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const r = v128.load(colour + i), g = v128.load(colour + stride + i), b = v128.load(colour + 2 * stride + i);
    const l = cubeRoot(row3(constants, r, g, b)), m = cubeRoot(row3(constants + 12, r, g, b)), s = cubeRoot(row3(constants + 24, r, g, b));
    const at = constants + TO_LAB;
    v128.store(out + i, row3(at, l, m, s));
    v128.store(out + stride + i, row3(at + 12, l, m, s));
    v128.store(out + 2 * stride + i, row3(at + 24, l, m, s));
  }
}

// @ts-ignore: decorator
@inline function meanOfSquares(upper0: v128, upper1: v128, lower0: v128, lower1: v128): v128 {
  const a = f32x4.add(upper0, lower0), b = f32x4.add(upper1, lower1);
  return f32x4.mul(f32x4.splat(0.25), f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7)));
}

/** The means of a plane over squares of two pixels: n of them, from a row and the one `row` bytes after it. */
export function squareMeans(p: usize, row: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16, p += 32)
    v128.store(out + i, meanOfSquares(v128.load(p), v128.load(p + 16), v128.load(p + row), v128.load(p + row + 16)));
}

/** The same of the product of two planes. */
export function squareProducts(p: usize, q: usize, row: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16, p += 32, q += 32)
    v128.store(out + i, meanOfSquares(
      f32x4.mul(v128.load(p), v128.load(q)), f32x4.mul(v128.load(p + 16), v128.load(q + 16)),
      f32x4.mul(v128.load(p + row), v128.load(q + row)), f32x4.mul(v128.load(p + row + 16), v128.load(q + row + 16))));
}

/**
 * What of each guide goes into two planes that follow them best, and what is added: eight planes `stride` bytes apart. `places` holds where
 * the means lie: of the guides (3), of the two planes (2), of the guides' products 00 01 02 11 12 22 (6), of the first plane's with each
 * guide (3), of the second's (3). The ridges keep slopes small where a guide hardly varies. Source: He, Sun & Tang, "Guided Image
 * Filtering" (2013), eq. 19, solved by LDLᵀ.
 */
export function solveGuides(places: usize, out: usize, stride: usize, n: i32, ridge0: f32, ridge1: f32, ridge2: f32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const m0 = at(places, 0, i), m1 = at(places, 1, i), m2 = at(places, 2, i);
    const c00 = f32x4.add(covariance(places, 5, i, m0, m0), f32x4.splat(ridge0)), c01 = covariance(places, 6, i, m0, m1);
    const c02 = covariance(places, 7, i, m0, m2), c11 = f32x4.add(covariance(places, 8, i, m1, m1), f32x4.splat(ridge1));
    const c12 = covariance(places, 9, i, m1, m2), c22 = f32x4.add(covariance(places, 10, i, m2, m2), f32x4.splat(ridge2));
    const by0 = f32x4.div(one, c00), l10 = f32x4.mul(c01, by0), l20 = f32x4.mul(c02, by0);
    const by1 = f32x4.div(one, f32x4.sub(c11, f32x4.mul(l10, c01)));
    const d21 = f32x4.sub(c12, f32x4.mul(l20, c01)), l21 = f32x4.mul(d21, by1);
    const by2 = f32x4.div(one, f32x4.sub(f32x4.sub(c22, f32x4.mul(l20, c02)), f32x4.mul(l21, d21)));
    for (let plane = 0; plane < 2; plane++) {
      const m = at(places, 3 + plane, i), first = 11 + 3 * plane;
      const y0 = covariance(places, first, i, m0, m);
      const y1 = f32x4.sub(covariance(places, first + 1, i, m1, m), f32x4.mul(l10, y0));
      const y2 = f32x4.sub(f32x4.sub(covariance(places, first + 2, i, m2, m), f32x4.mul(l20, y0)), f32x4.mul(l21, y1));
      const x2 = f32x4.mul(y2, by2);
      const x1 = f32x4.sub(f32x4.mul(y1, by1), f32x4.mul(l21, x2));
      const x0 = f32x4.sub(f32x4.sub(f32x4.mul(y0, by0), f32x4.mul(l10, x1)), f32x4.mul(l20, x2));
      let to = out + <usize>(4 * plane) * stride + i;
      v128.store(to, x0);
      v128.store((to += stride), x1);
      v128.store((to += stride), x2);
      const carried = f32x4.add(f32x4.add(f32x4.mul(x0, m0), f32x4.mul(x1, m1)), f32x4.mul(x2, m2));
      v128.store(to + stride, f32x4.sub(m, carried));
    }
  }
}
// @ts-ignore: decorator
@inline function at(places: usize, k: i32, i: usize): v128 {
  return v128.load(<usize>load<u32>(places + (<usize>k << 2)) + i);
}
// @ts-ignore: decorator
@inline function covariance(places: usize, k: i32, i: usize, p: v128, q: v128): v128 {
  return f32x4.sub(at(places, k, i), f32x4.mul(p, q));
}

/**
 * A row of the two planes as their guides tell them: from the eight planes above at half the size, read between two rows of theirs, `part`
 * on from `upper`. `between` is room for eight rows of n ∕ 2 + 8 floats. Guides: a row of lightness, one of a, and `guideStride` bytes on
 * one of b; the two planes' rows in `out` and as far on, perhaps in place.
 */
export function followGuides(
  lightness: usize, ab: usize, guideStride: usize, upper: usize, lower: usize, stride: usize, part: f32, between: usize, out: usize, n: i32,
): void {
  const half = <usize>n << 1, row = half + 32, share = f32x4.splat(part);
  for (let k: usize = 0; k < 8; k++) {
    const to = between + k * row + 16, a = upper + k * stride, b = lower + k * stride;
    for (let i: usize = 0; i < half; i += 16) {
      const v = v128.load(a + i);
      v128.store(to + i, f32x4.add(v, f32x4.mul(share, f32x4.sub(v128.load(b + i), v))));
    }
    store<f32>(to - 4, load<f32>(to));
    store<f32>(to + half, load<f32>(to + half - 4));
  }
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const l = v128.load(lightness + i), a = v128.load(ab + i), b = v128.load(ab + guideStride + i);
    const from = between + 12 + (i >> 1);
    v128.store(out + i, followed(from, row, l, a, b));
    v128.store(out + guideStride + i, followed(from + 4 * row, row, l, a, b));
  }
}
// @ts-ignore: decorator
@inline function followed(from: usize, row: usize, l: v128, a: v128, b: v128): v128 {
  const sum = f32x4.add(f32x4.mul(pixels(from), l), f32x4.mul(pixels(from + row), a));
  return f32x4.add(f32x4.add(sum, f32x4.mul(pixels(from + 2 * row), b)), pixels(from + 3 * row));
}
/** Four pixels between cells twice as wide, the first cell lying before them. */
// @ts-ignore: decorator
@inline function pixels(cells: usize): v128 {
  const v = v128.load(cells);
  return f32x4.add(f32x4.mul(f32x4.splat(0.75), v128.shuffle<f32>(v, v, 1, 1, 2, 2)), f32x4.mul(f32x4.splat(0.25), v128.shuffle<f32>(v, v, 0, 2, 1, 3)));
}

/** Mean and mean square → deviation, over n cells. */
export function deviations(mean: usize, square: usize, out: usize, n: i32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const m = v128.load(mean + i);
    v128.store(out + i, f32x4.sqrt(f32x4.pmax(f32x4.sub(v128.load(square + i), f32x4.mul(m, m)), zero)));
  }
}

/** What a row of two planes, `stride` bytes apart, lost by smoothing: two rows of n + 8 floats, each with its ends once more beside it. */
export function lostRow(found: usize, smoothed: usize, stride: usize, out: usize, n: i32): void {
  const row = (<usize>n << 2) + 32;
  for (let plane: usize = 0; plane < 2; plane++) {
    const to = out + plane * row + 16;
    for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
      v128.store(to + i, f32x4.sub(v128.load(found + plane * stride + i), v128.load(smoothed + plane * stride + i)));
    store<f32>(to - 4, load<f32>(to));
    store<f32>(to + (<usize>n << 2), load<f32>(to + (<usize>n << 2) - 4));
  }
}

/**
 * A row of two smoothed planes with what they lost where that stands out of noise: by itself, or as the mean of 3 × 3. `above`, `here`,
 * `below`: as lostRow leaves them. `tables`: what a single pixel and a mean must be more than, over lightness, one behind the other;
 * `byEdges` of the deviation of lightness around comes on top, read from cells of two pixels.
 */
export function standOut(
  above: usize, here: usize, below: usize, lightness: usize, cells: usize, byEdges: f32, tables: usize, knots: i32, smoothed: usize, stride: usize, n: i32,
): void {
  const row = (<usize>n << 2) + 32, ninth = f32x4.splat(1.0 / 9.0), edges = f32x4.splat(byEdges);
  const meansTable = tables + (<usize>(knots + 1) << 3);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const L = v128.load(lightness + i), deviation = v128.load64_zero(cells + (i >> 1));
    const around = f32x4.mul(edges, v128.shuffle<f32>(deviation, deviation, 0, 0, 1, 1));
    const a = v128.load(here + 16 + i), b = v128.load(here + row + 16 + i);
    const meanA = f32x4.mul(ninth, sumOf9(above + i, here + i, below + i)), meanB = f32x4.mul(ninth, sumOf9(above + row + i, here + row + i, below + row + i));
    const by = f32x4.pmax(
      outOf(a, b, f32x4.add(gatherUnit(tables, knots, L), around)),
      outOf(meanA, meanB, f32x4.add(gatherUnit(meansTable, knots, L), around)));
    v128.store(smoothed + i, f32x4.add(v128.load(smoothed + i), f32x4.mul(by, a)));
    v128.store(smoothed + stride + i, f32x4.add(v128.load(smoothed + stride + i), f32x4.mul(by, b)));
  }
}
// @ts-ignore: decorator
@inline function sumOf9(above: usize, here: usize, below: usize): v128 {
  return f32x4.add(f32x4.add(sumOf3(above), sumOf3(here)), sumOf3(below));
}
// @ts-ignore: decorator
@inline function sumOf3(at: usize): v128 {
  return f32x4.add(f32x4.add(v128.load(at + 12), v128.load(at + 16)), v128.load(at + 20));
}
/** 0 up to a size, 1 from 1.6 times it on, smoothly between. */
// @ts-ignore: decorator
@inline function outOf(a: v128, b: v128, least: v128): v128 {
  const size = f32x4.sqrt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b)));
  const u = clamp01(f32x4.mul(f32x4.sub(f32x4.div(size, least), f32x4.splat(1)), f32x4.splat(1.0 / 0.6)));
  return f32x4.mul(f32x4.mul(u, u), f32x4.sub(f32x4.splat(3), f32x4.add(u, u)));
}

/**
 * Colour of the light it has, of a lightness and other a, b: three planes in place. Where the source cannot hold it, it gives way towards
 * the grey of its light.
 * `lightness` and the plane of a lie anywhere, b a stride after a.
 */
export function recolour(colour: usize, lightness: usize, ab: usize, stride: usize, n: i32, constants: usize): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), tiny = f32x4.splat(1e-12);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const first = colour + i, second = first + stride, third = second + stride;
    const light = row3(constants + LIGHT, v128.load(first), v128.load(second), v128.load(third));
    const L = v128.load(lightness + i), a = v128.load(ab + i), b = v128.load(ab + stride + i);
    const l = cube(row3(constants + LAB_TO_LMS, L, a, b)), m = cube(row3(constants + LAB_TO_LMS + 12, L, a, b)), s = cube(row3(constants + LAB_TO_LMS + 24, L, a, b));
    let r = row3(constants + FROM_LMS, l, m, s), g = row3(constants + FROM_LMS + 12, l, m, s), t = row3(constants + FROM_LMS + 24, l, m, s);
    const made = row3(constants + LIGHT, r, g, t);
    const scale = v128.and(f32x4.div(light, f32x4.pmax(made, tiny)), f32x4.gt(made, tiny));
    r = f32x4.sub(f32x4.mul(r, scale), light);
    g = f32x4.sub(f32x4.mul(g, scale), light);
    t = f32x4.sub(f32x4.mul(t, scale), light);
    const over = f32x4.pmax(f32x4.pmax(r, g), t), under = f32x4.pmin(f32x4.pmin(r, g), t);
    // Rounding alone is no colour: what is neutral stays exactly so.
    const isColoured = f32x4.gt(f32x4.sub(over, under), f32x4.splat(2e-6));
    const room = f32x4.pmin(f32x4.div(f32x4.sub(one, light), f32x4.pmax(over, tiny)), f32x4.div(light, f32x4.pmax(f32x4.neg(under), tiny)));
    const keep = v128.and(clamp01(room), isColoured);
    v128.store(first, f32x4.add(light, f32x4.mul(r, keep)));
    v128.store(second, f32x4.add(light, f32x4.mul(g, keep)));
    v128.store(third, f32x4.add(light, f32x4.mul(t, keep)));
  }
}
