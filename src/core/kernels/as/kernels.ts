// The hot loops as AssemblyScript (WebAssembly SIMD). Pointers into an imported memory, no allocator.
// `n` counts pixels and is a multiple of 4, except where a docstring says otherwise.
// Each has a plain TypeScript twin in ../../reference/kernels.ts that says what it computes; the two are tested to agree.

import { clamp01, cubeRoot, exp2, gather, gatherUnit, luminanceOf, MAGIC, MANTISSA, pairsAt, rounded8, row3, toneOf, turns } from "./lanes";

export * from "./alike";
export * from "./chroma";
export * from "./clean";
export * from "./colour";
export * from "./dabs";
export * from "./enlarge";
export * from "./gauss";
export * from "./reduced";
export * from "./slices";
export * from "./turned";

// @ts-ignore: decorator
@inline function storeLinear(m: usize, r: usize, g: usize, b: usize, red: v128, green: v128, blue: v128): void {
  v128.store(r, row3(m, red, green, blue));
  v128.store(g, row3(m + 12, red, green, blue));
  v128.store(b, row3(m + 24, red, green, blue));
}

// @ts-ignore: decorator
@inline function at8(lut: usize, src: usize): f32 {
  return load<f32>(lut + (<usize>load<u8>(src) << 2));
}
// @ts-ignore: decorator
@inline function at16(lut: usize, src: usize): f32 {
  return load<f32>(lut + (<usize>load<u16>(src) << 2));
}

export function decode8(src: usize, lutR: usize, lutG: usize, lutB: usize, m: usize, r: usize, g: usize, b: usize, n: i32): void {
  for (let i: i32 = 0; i < n; i += 4) {
    storeLinear(m, r, g, b,
      f32x4(at8(lutR, src), at8(lutR, src + 3), at8(lutR, src + 6), at8(lutR, src + 9)),
      f32x4(at8(lutG, src + 1), at8(lutG, src + 4), at8(lutG, src + 7), at8(lutG, src + 10)),
      f32x4(at8(lutB, src + 2), at8(lutB, src + 5), at8(lutB, src + 8), at8(lutB, src + 11)));
    src += 12; r += 16; g += 16; b += 16;
  }
}

export function decode16(src: usize, lutR: usize, lutG: usize, lutB: usize, m: usize, r: usize, g: usize, b: usize, n: i32): void {
  for (let i: i32 = 0; i < n; i += 4) {
    storeLinear(m, r, g, b,
      f32x4(at16(lutR, src), at16(lutR, src + 6), at16(lutR, src + 12), at16(lutR, src + 18)),
      f32x4(at16(lutG, src + 2), at16(lutG, src + 8), at16(lutG, src + 14), at16(lutG, src + 20)),
      f32x4(at16(lutB, src + 4), at16(lutB, src + 10), at16(lutB, src + 16), at16(lutB, src + 22)));
    src += 24; r += 16; g += 16; b += 16;
  }
}

/** The sum of three weighed channels alone, where nothing can fall below black or pass white. */
export function mixWithin(r: usize, g: usize, b: usize, out: usize, n: i32, wr: f32, wg: f32, wb: f32): void {
  const vr = f32x4.splat(wr), vg = f32x4.splat(wg), vb = f32x4.splat(wb);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const y = f32x4.add(f32x4.add(f32x4.mul(v128.load(r + i), vr), f32x4.mul(v128.load(g + i), vg)), f32x4.mul(v128.load(b + i), vb));
    v128.store(out + i, clamp01(y));
  }
}

/** fromP3: linear P3 to the source's own channels (9). */
export function mixWeights(r: usize, g: usize, b: usize, out: usize, n: i32, wr: f32, wg: f32, wb: f32, knee: f32, shoulder: f32, fromP3: usize): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), e = f32x4.splat(knee), ee = f32x4.splat(knee * knee), tiny = f32x4.splat(1e-20);
  const vr = f32x4.splat(wr), vg = f32x4.splat(wg), vb = f32x4.splat(wb), from = f32x4.splat(shoulder);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const pr = f32x4.mul(red, vr), pg = f32x4.mul(green, vg), pb = f32x4.mul(blue, vb);
    const plus = f32x4.add(f32x4.add(f32x4.pmax(pr, zero), f32x4.pmax(pg, zero)), f32x4.pmax(pb, zero));
    const sum = f32x4.add(f32x4.add(pr, pg), pb);
    const u = f32x4.div(sum, f32x4.pmax(plus, tiny));
    const floor = f32x4.mul(plus, f32x4.div(ee, f32x4.sub(f32x4.add(e, e), u)));
    const y = v128.bitselect(sum, floor, f32x4.ge(u, e));
    const lit = f32x4.pmax(f32x4.pmax(row3(fromP3, red, green, blue), row3(fromP3 + 12, red, green, blue)), row3(fromP3 + 24, red, green, blue));
    const brightest = f32x4.div(y, f32x4.pmin(f32x4.pmax(lit, tiny), one));
    const top = f32x4.sub(brightest, from), above = f32x4.sub(y, from);
    // from + a ∕ (1 + c · a), which is 1 where y is `brightest`
    const c = f32x4.div(f32x4.sub(brightest, one), f32x4.mul(f32x4.pmax(top, tiny), f32x4.sub(one, from)));
    const bent = f32x4.add(from, f32x4.div(above, f32x4.add(one, f32x4.mul(c, above))));
    const bends = v128.and(f32x4.gt(brightest, one), f32x4.gt(y, from));
    v128.store(out + i, clamp01(v128.bitselect(bent, y, bends)));
  }
}

/** constants: P3 to LMS (9), LMS to a (3), LMS to b (3), chroma where the fade begins, 1 ∕ its width. */
export function hueFade(r: usize, g: usize, b: usize, hue: usize, fade: usize, n: i32, constants: usize): void {
  const from = v128.load32_splat(constants + 60), scale = v128.load32_splat(constants + 64);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const l = cubeRoot(row3(constants, red, green, blue));
    const m = cubeRoot(row3(constants + 12, red, green, blue));
    const s = cubeRoot(row3(constants + 24, red, green, blue));
    const labA = row3(constants + 36, l, m, s), labB = row3(constants + 48, l, m, s);
    const chroma = f32x4.sqrt(f32x4.add(f32x4.mul(labA, labA), f32x4.mul(labB, labB)));
    const u = clamp01(f32x4.mul(f32x4.sub(chroma, from), scale));
    v128.store(hue + i, turns(labA, labB));
    v128.store(fade + i, f32x4.mul(f32x4.mul(u, u), f32x4.sub(f32x4.splat(3), f32x4.add(u, u))));
  }
}

export function hueGain(y: usize, hue: usize, fade: usize, n: i32, table: usize, knots: i32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const v = v128.load(y + i);
    const k = exp2(f32x4.mul(gatherUnit(table, knots, v128.load(hue + i)), v128.load(fade + i)));
    v128.store(y + i, f32x4.div(f32x4.mul(k, v), f32x4.add(one, f32x4.mul(f32x4.sub(k, one), v))));
  }
}

export function lookUp(src: usize, out: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(out + i, gatherUnit(table, knots, v128.load(src + i)));
}

export function addLookedUp(tone: usize, out: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const v = v128.load(tone + i);
    v128.store(out + i, f32x4.add(v, gatherUnit(table, knots, v)));
  }
}

export function addLookedUpBy(tone: usize, mask: usize, out: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const v = v128.load(tone + i), by = v128.load(mask + i);
    v128.store(out + i, v128.any_true(by) ? f32x4.add(v, f32x4.mul(by, gatherUnit(table, knots, v))) : v);
  }
}

/** Beyond an amount of 1 the move goes on, nearer and nearer to the end of the scale once it takes more than half of the room left. */
export function mixBy(below: usize, above: usize, amount: usize, out: usize, n: i32): void {
  const one = f32x4.splat(1), zero = f32x4.splat(0), quarter = f32x4.splat(0.25), tiny = f32x4.splat(1e-20);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const v = v128.load(below + i), to = v128.load(above + i), by = v128.load(amount + i);
    const change = f32x4.sub(to, v);
    const within = f32x4.add(v, f32x4.mul(by, change));
    const length = f32x4.mul(f32x4.sub(by, one), f32x4.abs(change));
    const rises = f32x4.gt(change, zero);
    const room = v128.bitselect(f32x4.sub(one, to), to, rises);
    const share = f32x4.div(length, f32x4.pmax(room, tiny));
    const near = f32x4.mul(room, f32x4.sub(one, f32x4.div(quarter, f32x4.pmax(share, quarter))));
    const further = v128.bitselect(near, length, f32x4.gt(share, f32x4.splat(0.5)));
    const beyond = f32x4.add(to, v128.bitselect(further, f32x4.neg(further), rises));
    v128.store(out + i, clamp01(v128.bitselect(beyond, within, f32x4.gt(by, one))));
  }
}

/** plane → plane · scale + offset. */
export function scaleAdd(plane: usize, n: i32, scale: f32, offset: f32): void {
  const a = f32x4.splat(scale), b = f32x4.splat(offset);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(plane + i, f32x4.add(f32x4.mul(v128.load(plane + i), a), b));
}

/**
 * stops → the stops that reach each tone, read between rows of tables: 2 · side + 1 pair tables of knots + 1, one after the other, for
 * stops from −most to most.
 */
export function throughRows(stops: usize, tone: usize, n: i32, tables: usize, knots: i32, side: i32, most: f32): void {
  const zero = f32x4.splat(0), top = f32x4.splat(<f32>knots), magic = f32x4.splat(MAGIC), mantissa = i32x4.splat(MANTISSA);
  const lastAt: i32 = side + side - 1;
  const scale = f32x4.splat(<f32>side / most), middle = f32x4.splat(<f32>side), lastRow = f32x4.splat(<f32>lastAt);
  const stride = i32x4.splat(knots + 1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const row = f32x4.pmin(f32x4.pmax(f32x4.add(f32x4.mul(v128.load(stops + i), scale), middle), zero), f32x4.add(lastRow, f32x4.splat(1)));
    const lower = f32x4.pmin(f32x4.floor(row), lastRow);
    const part = f32x4.sub(row, lower);
    const x = f32x4.pmin(f32x4.pmax(f32x4.mul(v128.load(tone + i), top), zero), top);
    const whole = f32x4.floor(x);
    const f = f32x4.sub(x, whole);
    const knot = v128.and(f32x4.add(whole, magic), mantissa);
    const first = i32x4.add(i32x4.mul(v128.and(f32x4.add(lower, magic), mantissa), stride), knot);
    const a = pairsAt(tables, i32x4.shl(first, 3), f);
    const b = pairsAt(tables, i32x4.shl(i32x4.add(first, stride), 3), f);
    v128.store(stops + i, f32x4.add(a, f32x4.mul(part, f32x4.sub(b, a))));
  }
}

/** plane + by · table(tone). */
export function addTableBy(plane: usize, by: usize, tone: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(plane + i, f32x4.add(v128.load(plane + i), f32x4.mul(v128.load(by + i), gatherUnit(table, knots, v128.load(tone + i)))));
}

export function add(a: usize, b: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) v128.store(out + i, f32x4.add(v128.load(a + i), v128.load(b + i)));
}

export function multiply(a: usize, b: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) v128.store(out + i, f32x4.mul(v128.load(a + i), v128.load(b + i)));
}

/** Levels 0–255 from a table in levels, with offsets. */
// @ts-ignore: decorator
@inline function level8(tone: usize, table: usize, knots: i32, dither: v128): v128 {
  return rounded8(gatherUnit(table, knots, v128.load(tone)), dither);
}

/** mask: pixels after which the row of dither begins anew, less one; a multiple of 4 less one. */
export function greyToRgba(tone: usize, out: usize, n: i32, table: usize, knots: i32, ditherRow: usize, mask: i32): void {
  const alpha = i32x4.splat(0xff000000);
  for (let i: i32 = 0; i < n; i += 4) {
    const g = level8(tone, table, knots, v128.load(ditherRow + (<usize>(i & mask) << 2)));
    v128.store(out, v128.or(alpha, v128.or(g, v128.or(i32x4.shl(g, 8), i32x4.shl(g, 16)))));
    tone += 16; out += 16;
  }
}

export function grey8(tone: usize, out: usize, n: i32, table: usize, knots: i32, ditherRow: usize, mask: i32): void {
  const zero = i32x4.splat(0);
  for (let i: i32 = 0; i < n; i += 4) {
    const words = i16x8.narrow_i32x4_u(level8(tone, table, knots, v128.load(ditherRow + (<usize>(i & mask) << 2))), zero);
    v128.store32_lane(out, i8x16.narrow_i16x8_u(words, words), 0);
    tone += 16; out += 4;
  }
}

/** A row of triangular noise of −amplitude…amplitude; line: what tells the row. */
export function noiseRow(out: usize, n: i32, line: i32, amplitude: f32): void {
  const by = i32x4.splat(line), scale = f32x4.splat(amplitude), part = f32x4.splat(1.0 / 65536.0);
  let x: v128 = i32x4(0x7f4a7c15, 0x7f4a7c16, 0x7f4a7c17, 0x7f4a7c18);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    let h: v128 = i32x4.mul(v128.xor(x, by), i32x4.splat(0x85ebca6b));
    h = i32x4.mul(v128.xor(h, i32x4.shr_u(h, 13)), i32x4.splat(0xc2b2ae35));
    h = v128.xor(h, i32x4.shr_u(h, 16));
    const difference = i32x4.sub(i32x4.shr_u(h, 16), v128.and(h, i32x4.splat(0xffff)));
    v128.store(out + i, f32x4.mul(f32x4.mul(scale, f32x4.convert_i32x4_s(difference)), part));
    x = i32x4.add(x, i32x4.splat(4));
  }
}

/** row → row and offsets that begin anew after mask + 1. */
export function offsetRow(row: usize, offsets: usize, mask: i32, out: usize, n: i32): void {
  for (let i: i32 = 0; i < n; i += 4) {
    const at = <usize>i << 2;
    v128.store(out + at, f32x4.add(v128.load(row + at), v128.load(offsets + (<usize>(i & mask) << 2))));
  }
}

/** Levels 0–65535 from a table in levels, rounded to nearest. */
export function grey16(tone: usize, out: usize, n: i32, table: usize, knots: i32): void {
  const zero = f32x4.splat(0), top = f32x4.splat(65535), half = f32x4.splat(0.5), none = i32x4.splat(0);
  for (let i: i32 = 0; i < n; i += 4) {
    const e = f32x4.add(f32x4.pmin(f32x4.pmax(gatherUnit(table, knots, v128.load(tone)), zero), top), half);
    v128.store64_lane(out, i16x8.narrow_i32x4_u(i32x4.trunc_sat_f32x4_s(e), none), 0);
    tone += 16; out += 8;
  }
}

// @ts-ignore: decorator
@inline function channel8(plane: usize, table: usize, knots: i32): v128 {
  const e = f32x4.pmin(gatherUnit(table, knots, v128.load(plane)), f32x4.splat(255));
  return v128.and(f32x4.add(e, f32x4.splat(MAGIC)), i32x4.splat(0xff));
}

export function colourToRgba(r: usize, g: usize, b: usize, out: usize, n: i32, table: usize, knots: i32): void {
  const alpha = i32x4.splat(0xff000000);
  for (let i: i32 = 0; i < n; i += 4) {
    const red = channel8(r, table, knots), green = channel8(g, table, knots), blue = channel8(b, table, knots);
    v128.store(out, v128.or(v128.or(alpha, red), v128.or(i32x4.shl(green, 8), i32x4.shl(blue, 16))));
    r += 16; g += 16; b += 16; out += 16;
  }
}

// @ts-ignore: decorator
@inline function count(counts: usize, at: i32): void {
  const cell = counts + (<usize>at << 2);
  store<u32>(cell, load<u32>(cell) + 1);
}

/**
 * Adds to counts how many of n values of 0–1 fall in each of `bins` equal bins. counts holds four histograms (u32), one
 * a lane, one after the other: the same bin twice in a row would otherwise wait for its own store.
 */
export function histogram(tone: usize, n: i32, counts: usize, bins: i32): void {
  const scale = f32x4.splat(<f32>bins), last = f32x4.splat(<f32>(bins - 1)), zero = f32x4.splat(0), magic = f32x4.splat(MAGIC);
  const second = counts + (<usize>bins << 2), third = second + (<usize>bins << 2), fourth = third + (<usize>bins << 2);
  for (let i: i32 = 0; i < n; i += 4) {
    const x = f32x4.floor(f32x4.pmin(f32x4.pmax(f32x4.mul(v128.load(tone), scale), zero), last));
    const at = v128.and(f32x4.add(x, magic), i32x4.splat(MANTISSA));
    count(counts, i32x4.extract_lane(at, 0));
    count(second, i32x4.extract_lane(at, 1));
    count(third, i32x4.extract_lane(at, 2));
    count(fourth, i32x4.extract_lane(at, 3));
    tone += 16;
  }
}

/** One row read between the knots of a table: value i at `from` + i · `step` knots, held at both ends. */
export function sampleRow(table: usize, out: usize, n: i32, from: f32, step: f32, knots: i32): void {
  const zero = f32x4.splat(0), top = f32x4.splat(<f32>knots);
  for (let i: i32 = 0; i < n; i += 4) {
    const first = f32x4.add(f32x4.splat(<f32>i), f32x4(0, 1, 2, 3));
    const x = f32x4.add(f32x4.splat(from), f32x4.mul(first, f32x4.splat(step)));
    v128.store(out, gather(table, f32x4.pmin(f32x4.pmax(x, zero), top)));
    out += 16;
  }
}

export function guided(tone: usize, slope: usize, offset: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(out + i, clamp01(f32x4.add(f32x4.mul(v128.load(slope + i), v128.load(tone + i)), v128.load(offset + i))));
}

export function scaleLookedUp(plane: usize, tone: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(plane + i, f32x4.mul(v128.load(plane + i), gatherUnit(table, knots, v128.load(tone + i))));
}

export function addTable(plane: usize, tone: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(plane + i, f32x4.add(v128.load(plane + i), gatherUnit(table, knots, v128.load(tone + i))));
}

export function exposeBy(tone: usize, stops: usize, out: usize, n: i32, onPaper: i32): void {
  const one = f32x4.splat(1), least = f32x4.splat(onPaper ? 0 : -1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const y = luminanceOf(clamp01(v128.load(tone + i)));
    const k = exp2(v128.load(stops + i));
    const lit = f32x4.div(f32x4.mul(k, y), f32x4.add(one, f32x4.pmax(f32x4.mul(f32x4.sub(k, one), y), least)));
    v128.store(out + i, toneOf(clamp01(lit)));
  }
}

/** values, less others, as pairs of each and the step to the next; the last, which lies behind n others, has none. */
export function pairsOf(values: usize, less: usize, out: usize, n: i32): void {
  let at = out;
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16, at += 32) {
    let value = v128.load(values + i), next = v128.load(values + i + 4);
    if (less) {
      value = f32x4.sub(value, v128.load(less + i));
      next = f32x4.sub(next, v128.load(less + i + 4));
    }
    const step = f32x4.sub(next, value);
    v128.store(at, v128.shuffle<f32>(value, step, 0, 4, 1, 5));
    v128.store(at + 16, v128.shuffle<f32>(value, step, 2, 6, 3, 7));
  }
  const last = <usize>n << 2;
  store<f32>(at, load<f32>(values + last) - (less ? load<f32>(less + last) : 0));
  store<f32>(at + 4, 0);
}

/** So much of the way from one to the other. */
export function between(a: usize, b: usize, share: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const first = v128.load(a + i);
    v128.store(out + i, f32x4.add(first, f32x4.mul(v128.load(share + i), f32x4.sub(v128.load(b + i), first))));
  }
}

/** The tone of the light of two, so much of it of the second; through a table from luminance, four times as quick as a root. */
export function meanLight(a: usize, b: usize, share: usize, out: usize, n: i32, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const first = luminanceOf(v128.load(a + i)), second = luminanceOf(v128.load(b + i));
    const mean = f32x4.add(first, f32x4.mul(v128.load(share + i), f32x4.sub(second, first)));
    v128.store(out + i, gatherUnit(table, knots, mean));
  }
}

/** Adds a row of colour to the sums over pixels: seven planes `stride` bytes apart, each pixel by its own amount. */
export function addMoments(r: usize, g: usize, b: usize, by: usize, sums: usize, stride: usize, n: i32, wr: f32, wg: f32, wb: f32): void {
  const a = f32x4.splat(wr), c = f32x4.splat(wg), d = f32x4.splat(wb);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i), amount = v128.load(by + i);
    const y = f32x4.add(f32x4.add(f32x4.mul(a, red), f32x4.mul(c, green)), f32x4.mul(d, blue));
    const light = f32x4.mul(amount, y), square = f32x4.mul(light, y);
    let at = sums + i;
    v128.store(at, f32x4.add(v128.load(at), f32x4.mul(amount, red)));
    v128.store(at + stride, f32x4.add(v128.load(at + stride), f32x4.mul(amount, green)));
    at += 2 * stride;
    v128.store(at, f32x4.add(v128.load(at), f32x4.mul(amount, blue)));
    v128.store(at + stride, f32x4.add(v128.load(at + stride), square));
    at += 2 * stride;
    v128.store(at, f32x4.add(v128.load(at), f32x4.mul(square, y)));
    v128.store(at + stride, f32x4.add(v128.load(at + stride), f32x4.mul(light, red)));
    at += 2 * stride;
    v128.store(at, f32x4.add(v128.load(at), f32x4.mul(light, blue)));
  }
}

/** The means of neighbours: n of them, of 2 n values. */
export function pairMeans(src: usize, out: usize, n: i32): void {
  const half = f32x4.splat(0.5);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const a = v128.load(src + 2 * i), b = v128.load(src + 2 * i + 16);
    const sum = f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7));
    v128.store(out + i, f32x4.mul(half, sum));
  }
}

/**
 * Moments as above → three planes of the darker, three of the lighter, the lighter's share; `stride` bytes apart.
 */
export function grainOf(moments: usize, out: usize, stride: usize, n: i32, wr: f32, wg: f32, wb: f32, leastDepth: f32, leastShare: f32): void {
  const a = f32x4.splat(wr), c = f32x4.splat(wg), d = f32x4.splat(wb);
  const one = f32x4.splat(1), two = f32x4.splat(2), half = f32x4.splat(0.5), zero = f32x4.splat(0);
  const depth = f32x4.splat(leastDepth), least = f32x4.splat(leastShare), most = f32x4.sub(one, least);
  const light2 = moments + 3 * stride, redLight = light2 + 2 * stride;
  const lighter = out + 3 * stride, shares = lighter + 3 * stride;
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(moments + i), green = v128.load(moments + stride + i), blue = v128.load(moments + 2 * stride + i);
    const mean = f32x4.add(f32x4.add(f32x4.mul(a, red), f32x4.mul(c, green)), f32x4.mul(d, blue));
    const second = v128.load(light2 + i), third = v128.load(light2 + stride + i);
    const square = f32x4.mul(mean, mean);
    const variance = f32x4.sub(second, square);
    const deviation = f32x4.sqrt(f32x4.pmax(variance, zero));
    const central = f32x4.add(f32x4.sub(third, f32x4.mul(f32x4.splat(3), f32x4.mul(mean, second))), f32x4.mul(two, f32x4.mul(square, mean)));
    const skewness = f32x4.div(central, f32x4.pmax(f32x4.mul(variance, deviation), f32x4.splat(1e-30)));
    const root = f32x4.sqrt(f32x4.add(f32x4.mul(skewness, skewness), f32x4.splat(4)));
    const share = f32x4.pmin(f32x4.pmax(f32x4.mul(half, f32x4.sub(one, f32x4.div(skewness, root))), least), most);
    const rest = f32x4.sub(one, share);
    const down = f32x4.pmin(f32x4.mul(deviation, f32x4.sqrt(f32x4.div(share, rest))), mean);
    const has = v128.and(f32x4.gt(variance, zero), v128.and(f32x4.gt(mean, zero), f32x4.ge(down, f32x4.mul(depth, mean))));
    const fall = v128.and(down, has), rise = v128.and(f32x4.div(f32x4.mul(down, rest), share), has);
    const safe = v128.bitselect(variance, one, has);
    const redSlope = f32x4.div(f32x4.sub(v128.load(redLight + i), f32x4.mul(red, mean)), safe);
    const blueSlope = f32x4.div(f32x4.sub(v128.load(redLight + stride + i), f32x4.mul(blue, mean)), safe);
    const greenSlope = f32x4.div(f32x4.sub(f32x4.sub(one, f32x4.mul(a, redSlope)), f32x4.mul(d, blueSlope)), c);
    v128.store(out + i, f32x4.sub(red, f32x4.mul(fall, redSlope)));
    v128.store(out + stride + i, f32x4.sub(green, f32x4.mul(fall, greenSlope)));
    v128.store(out + 2 * stride + i, f32x4.sub(blue, f32x4.mul(fall, blueSlope)));
    v128.store(lighter + i, f32x4.add(red, f32x4.mul(rise, redSlope)));
    v128.store(lighter + stride + i, f32x4.add(green, f32x4.mul(rise, greenSlope)));
    v128.store(lighter + 2 * stride + i, f32x4.add(blue, f32x4.mul(rise, blueSlope)));
    v128.store(shares + i, v128.and(share, has));
  }
}

// @ts-ignore: decorator
@inline function depthStep(mean: usize, darker: usize, rises: v128): v128 {
  const one = f32x4.splat(1), colour = v128.load(mean);
  const left = f32x4.div(v128.load(darker), f32x4.pmax(colour, f32x4.splat(1e-30)));
  const lowest = f32x4.pmax(f32x4.splat(-1), f32x4.neg(rises));
  const depth = v128.and(f32x4.pmin(f32x4.pmax(f32x4.sub(one, left), lowest), one), f32x4.gt(colour, f32x4.splat(0)));
  const size = f32x4.nearest(f32x4.mul(f32x4.splat(127), f32x4.sub(one, f32x4.sqrt(f32x4.sub(one, f32x4.abs(depth))))));
  const step = i32x4.trunc_sat_f32x4_s(v128.bitselect(f32x4.neg(size), size, f32x4.lt(depth, f32x4.splat(0))));
  return v128.and(step, i32x4.splat(0xff));
}

/** Means (three planes) and grain (seven), `stride` bytes apart → words. */
export function packGrain(mean: usize, grain: usize, stride: usize, out: usize, n: i32): void {
  const shares = f32x4.splat(256), one = f32x4.splat(1), zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const own = v128.load(grain + 6 * stride + i), has = f32x4.gt(own, zero);
    const share = f32x4.pmin(f32x4.pmax(f32x4.nearest(f32x4.mul(shares, own)), one), f32x4.splat(255));
    const rises = f32x4.div(share, f32x4.sub(shares, share));
    let word: v128 = i32x4.trunc_sat_f32x4_s(share);
    word = v128.or(word, i32x4.shl(depthStep(mean + i, grain + i, rises), 8));
    word = v128.or(word, i32x4.shl(depthStep(mean + stride + i, grain + stride + i, rises), 16));
    word = v128.or(word, i32x4.shl(depthStep(mean + 2 * stride + i, grain + 2 * stride + i, rises), 24));
    v128.store(out + i, v128.and(word, has));
  }
}

// @ts-ignore: decorator
@inline function unpackChannel(mean: usize, darker: usize, lighter: usize, step: v128, ratio: v128): void {
  const one = f32x4.splat(1), colour = v128.load(mean);
  const signed = f32x4.convert_i32x4_s(i32x4.shr_s(step, 24));
  const left = f32x4.sub(one, f32x4.mul(f32x4.abs(signed), f32x4.splat(1.0 / 127.0)));
  const size = f32x4.sub(one, f32x4.mul(left, left));
  const falls = f32x4.mul(colour, v128.bitselect(f32x4.neg(size), size, f32x4.lt(signed, f32x4.splat(0))));
  v128.store(darker, f32x4.sub(colour, falls));
  v128.store(lighter, f32x4.add(colour, f32x4.mul(falls, ratio)));
}

/** The other way. */
export function unpackGrain(mean: usize, packed: usize, grain: usize, stride: usize, n: i32): void {
  const one = f32x4.splat(1), lighter = grain + 3 * stride;
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const word = v128.load(packed + i);
    const share = f32x4.mul(f32x4.convert_i32x4_s(v128.and(word, i32x4.splat(0xff))), f32x4.splat(1.0 / 256.0));
    const ratio = f32x4.div(f32x4.sub(one, share), f32x4.pmax(share, f32x4.splat(1.0 / 256.0)));
    unpackChannel(mean + i, grain + i, lighter + i, i32x4.shl(word, 16), ratio);
    unpackChannel(mean + stride + i, grain + stride + i, lighter + stride + i, i32x4.shl(word, 8), ratio);
    unpackChannel(mean + 2 * stride + i, grain + 2 * stride + i, lighter + 2 * stride + i, word, ratio);
    v128.store(grain + 6 * stride + i, share);
  }
}

/** Colour (three planes, `stride` bytes apart) through a matrix, in place. */
export function throughMatrix(colour: usize, stride: usize, n: i32, matrix: usize): void {
  const second = colour + stride, third = second + stride;
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const r = v128.load(colour + i), g = v128.load(second + i), b = v128.load(third + i);
    storeLinear(matrix, colour + i, second + i, third + i, r, g, b);
  }
}

// @ts-ignore: decorator
@inline function screen4(b: v128, a: v128): v128 {
  return f32x4.sub(f32x4.add(b, a), f32x4.mul(b, a));
}
// @ts-ignore: decorator
@inline function hardLight4(b: v128, a: v128): v128 {
  const twice = f32x4.add(a, a);
  return v128.bitselect(f32x4.mul(b, twice), screen4(b, f32x4.sub(twice, f32x4.splat(1))), f32x4.le(a, f32x4.splat(0.5)));
}
// @ts-ignore: decorator
@inline function softLight4(b: v128, a: v128): v128 {
  const one = f32x4.splat(1), over = f32x4.sub(f32x4.add(a, a), one);
  const cubic = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(b, f32x4.splat(16)), f32x4.splat(12)), b), f32x4.splat(4)), b);
  const lifted = v128.bitselect(cubic, f32x4.sqrt(b), f32x4.le(b, f32x4.splat(0.25)));
  const lighter = f32x4.mul(over, f32x4.sub(lifted, b)), darker = f32x4.mul(over, f32x4.mul(b, f32x4.sub(one, b)));
  return f32x4.add(b, v128.bitselect(darker, lighter, f32x4.le(over, f32x4.splat(0))));
}
// @ts-ignore: decorator
@inline function dodge4(b: v128, a: v128): v128 {
  const one = f32x4.splat(1), zero = f32x4.splat(0);
  const q = f32x4.pmin(f32x4.div(b, f32x4.pmax(f32x4.sub(one, a), f32x4.splat(1e-20))), one);
  return v128.andnot(q, f32x4.le(b, zero));
}
// @ts-ignore: decorator
@inline function blend4(mode: i32, b: v128, a: v128): v128 {
  const one = f32x4.splat(1);
  switch (mode) {
    case 1: return f32x4.mul(b, a);
    case 2: return screen4(b, a);
    case 3: return hardLight4(a, b);
    case 4: return f32x4.pmin(b, a);
    case 5: return f32x4.pmax(b, a);
    case 6: return dodge4(b, a);
    case 7: return f32x4.sub(one, dodge4(f32x4.sub(one, b), f32x4.sub(one, a)));
    case 8: return hardLight4(b, a);
    case 9: return softLight4(b, a);
    case 10: return f32x4.abs(f32x4.sub(b, a));
    case 11: return f32x4.sub(f32x4.add(b, a), f32x4.mul(f32x4.add(b, b), a));
    default: return a;
  }
}

/** mode: place in BLEND_MODES. */
export function blendPlanes(below: usize, above: usize, out: usize, n: i32, mode: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16)
    v128.store(out + i, clamp01(blend4(mode, v128.load(below + i), v128.load(above + i))));
}
