// Colour beside the tone: a and b of OKLab, laid after the mix, and what comes of them and a tone.
import { clamp01, cube, gatherUnit, luminanceOf, rounded8, row3, signedRoot } from "./lanes";

// Constants: linear P3 to LMS (9), LMS to lightness, a, b (9), what a and b give to the cube roots of L, M, S (6), what each of these gives
// to luminance (3), LMS to the channels that are made (9), what each of those gives to luminance (3).
const TO_LAB: usize = 36;
const FROM_AB: usize = 72;
const LMS_LIGHT: usize = 96;
const TO_CHANNELS: usize = 108;
const CHANNEL_LIGHT: usize = 144;

/** Chroma below this is none: what rounding leaves of a grey. Squared. */
const NONE: f32 = 4e-12;
/** Chroma, squared, up to which one step of Newton's finds the lightness closely enough. */
const FAINT: f32 = 0.01;
/** Times that a colour out of range comes nearer. */
const NEARER: i32 = 4;

let channel0: v128 = f32x4.splat(0);
let channel1: v128 = f32x4.splat(0);
let channel2: v128 = f32x4.splat(0);
/** Where those are of a colour, not of a grey. */
let coloured: v128 = i32x4.splat(0);

/**
 * plane → plane and what is laid on it by amounts, times a scale unless that plane is 0; `replaces` 1 takes away as much of what was there,
 * 0 nothing.
 */
export function layChroma(plane: usize, laid: usize, scale: usize, amount: usize, n: i32, replaces: f32): void {
  const one = f32x4.splat(1), less = f32x4.splat(replaces);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const by = v128.load(amount + i);
    const left = f32x4.sub(one, f32x4.mul(less, f32x4.pmin(by, one)));
    const all = scale ? f32x4.mul(v128.load(laid + i), v128.load(scale + i)) : v128.load(laid + i);
    v128.store(plane + i, f32x4.add(f32x4.mul(v128.load(plane + i), left), f32x4.mul(by, all)));
  }
}

/** Linear P3 → a and b of OKLab, and 1 ∕ the third root of its luminance, unless that plane is 0. Constants of P3. */
export function chromaOf(r: usize, g: usize, b: usize, outA: usize, outB: usize, outRoot: usize, n: i32, constants: usize): void {
  const one = f32x4.splat(1), tiny = f32x4.splat(1e-6);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const l = signedRoot(row3(constants, red, green, blue));
    const m = signedRoot(row3(constants + 12, red, green, blue));
    const s = signedRoot(row3(constants + 24, red, green, blue));
    const p = row3(constants + TO_LAB + 12, l, m, s), q = row3(constants + TO_LAB + 24, l, m, s);
    const isColour = f32x4.gt(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)), f32x4.splat(NONE));
    v128.store(outA + i, v128.and(p, isColour));
    v128.store(outB + i, v128.and(q, isColour));
    if (outRoot) v128.store(outRoot + i, f32x4.div(one, signedRoot(f32x4.pmax(row3(constants + CHANNEL_LIGHT, red, green, blue), tiny))));
  }
}

/**
 * How much of a colour's own a and b comes back: a saturation, and less where the tone is darker than the colour, whose light `root` tells:
 * as if less light fell on it.
 */
export function followTone(root: usize, tone: usize, out: usize, n: i32, saturation: f32): void {
  const most = f32x4.splat(saturation);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const t = v128.load(tone + i);
    v128.store(out + i, f32x4.mul(most, clamp01(f32x4.mul(rootOf(t, luminanceOf(t)), v128.load(root + i)))));
  }
}

/** tone, a, b → the linear light of three channels, whose luminance is the tone's; below 0 and over 1 where they cannot show it. */
export function colourLight(tone: usize, a: usize, b: usize, r: usize, g: usize, blue: usize, n: i32, constants: usize): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const t = v128.load(tone + i), light = luminanceOf(t), p = v128.load(a + i), q = v128.load(b + i);
    const L = lightnessOf(constants, light, rootOf(t, light), p, q);
    const l = cube(f32x4.add(L, along(constants, 0, p, q))), m = cube(f32x4.add(L, along(constants, 1, p, q))), s = cube(f32x4.add(L, along(constants, 2, p, q)));
    const x = channel(constants, 0, l, m, s), y = channel(constants, 1, l, m, s), z = channel(constants, 2, l, m, s);
    const left = leftOf(constants, light, x, y, z);
    v128.store(r + i, f32x4.add(x, left));
    v128.store(g + i, f32x4.add(y, left));
    v128.store(blue + i, f32x4.add(z, left));
  }
}

/**
 * tone, a, b → levels of three channels, 0–65535, one after the other. What they cannot show gives way in its chroma, at its hue, and stays
 * at its luminance. Without chroma each is the grey level of the tone. Tables: levels over light, levels over tone.
 */
export function colour16(tone: usize, a: usize, b: usize, out: usize, n: i32, constants: usize, levels: usize, knots: i32, greys: usize, greyKnots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    printed(constants, v128.load(tone + i), v128.load(a + i), v128.load(b + i), levels, knots, greys, greyKnots);
    const x = rounded16(channel0), y = rounded16(channel1), z = rounded16(channel2);
    for (let k: i32 = 0; k < 4; k++) {
      store<u16>(out, <u16>lane(x, k));
      store<u16>(out + 2, <u16>lane(y, k));
      store<u16>(out + 4, <u16>lane(z, k));
      out += 6;
    }
  }
}

/**
 * The same as levels of 0–255, with offsets; held where they would carry bare paper or black further than a rounding. A row of them for
 * greys, which its channels share, so that they stay grey, and, so many bytes behind the one before, one for each channel of a colour.
 */
export function colour8(tone: usize, a: usize, b: usize, out: usize, n: i32, constants: usize, levels: usize, knots: i32, greys: usize, greyKnots: i32, ditherRow: usize, mask: i32, nextRow: usize): void {
  for (let j: i32 = 0; j < n; j += 4) {
    const i = <usize>j << 2;
    printed(constants, v128.load(tone + i), v128.load(a + i), v128.load(b + i), levels, knots, greys, greyKnots);
    const row = ditherRow + (<usize>(j & mask) << 2);
    const dither = v128.load(row);
    const x = rounded8(channel0, v128.bitselect(v128.load(row + nextRow), dither, coloured));
    const y = rounded8(channel1, v128.bitselect(v128.load(row + 2 * nextRow), dither, coloured));
    const z = rounded8(channel2, v128.bitselect(v128.load(row + 3 * nextRow), dither, coloured));
    for (let k: i32 = 0; k < 4; k++) {
      store<u8>(out, <u8>lane(x, k));
      store<u8>(out + 1, <u8>lane(y, k));
      store<u8>(out + 2, <u8>lane(z, k));
      out += 3;
    }
  }
}

/** The same as opaque pixels of 4 bytes, with such offsets. */
export function colourRgba(tone: usize, a: usize, b: usize, out: usize, n: i32, constants: usize, levels: usize, knots: i32, greys: usize, greyKnots: i32, ditherRow: usize, mask: i32): void {
  const alpha = i32x4.splat(0xff000000);
  for (let k: i32 = 0; k < n; k += 4) {
    const i = <usize>k << 2;
    printed(constants, v128.load(tone + i), v128.load(a + i), v128.load(b + i), levels, knots, greys, greyKnots);
    const dither = v128.load(ditherRow + (<usize>(k & mask) << 2));
    const red = rounded8(channel0, dither), green = rounded8(channel1, dither), blue = rounded8(channel2, dither);
    v128.store(out + i, v128.or(v128.or(alpha, red), v128.or(i32x4.shl(green, 8), i32x4.shl(blue, 16))));
  }
}

/**
 * a and b with those of another tone in one pixel, so much of it: those of their light together. Chroma times the square of lightness adds
 * up like light.
 */
export function meanChroma(toneA: usize, toneB: usize, share: usize, mean: usize, a: usize, b: usize, otherA: usize, otherB: usize, n: i32): void {
  const one = f32x4.splat(1), tiny = f32x4.splat(1e-6);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const part = v128.load(share + i), all = f32x4.div(one, f32x4.pmax(squareRoot3(v128.load(mean + i)), tiny));
    const from = f32x4.mul(all, f32x4.mul(f32x4.sub(one, part), squareRoot3(v128.load(toneA + i))));
    const to = f32x4.mul(all, f32x4.mul(part, squareRoot3(v128.load(toneB + i))));
    v128.store(a + i, f32x4.add(f32x4.mul(from, v128.load(a + i)), f32x4.mul(to, v128.load(otherA + i))));
    v128.store(b + i, f32x4.add(f32x4.mul(from, v128.load(b + i)), f32x4.mul(to, v128.load(otherB + i))));
  }
}

/** The third root of a tone's luminance: above L* 8 that is how it is made. */
// @ts-ignore: decorator
@inline function rootOf(tone: v128, light: v128): v128 {
  const root = f32x4.mul(f32x4.add(tone, f32x4.splat(0.16)), f32x4.splat(1.0 / 1.16));
  const isDark = f32x4.le(tone, f32x4.splat(0.08));
  return v128.any_true(isDark) ? v128.bitselect(signedRoot(light), root, isDark) : root;
}

/** Levels of the channels of a colour laid on a tone, so far as they can show it. */
// @ts-ignore: decorator
@inline function printed(constants: usize, t: v128, a: v128, b: v128, levels: usize, knots: i32, greys: usize, greyKnots: i32): void {
  const isColour = f32x4.gt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b)), f32x4.splat(NONE));
  coloured = isColour;
  if (!v128.any_true(isColour)) {
    channel0 = channel1 = channel2 = gatherUnit(greys, greyKnots, t);
    return;
  }
  const light = luminanceOf(t), root = rootOf(t, light);
  let p = a, q = b;
  let x = light, y = light, z = light;
  for (let k: i32 = 0; ; k++) {
    const L = lightnessOf(constants, light, root, p, q);
    const l = cube(f32x4.add(L, along(constants, 0, p, q))), m = cube(f32x4.add(L, along(constants, 1, p, q))), s = cube(f32x4.add(L, along(constants, 2, p, q)));
    x = channel(constants, 0, l, m, s);
    y = channel(constants, 1, l, m, s);
    z = channel(constants, 2, l, m, s);
    const left = leftOf(constants, light, x, y, z);
    x = f32x4.add(x, left);
    y = f32x4.add(y, left);
    z = f32x4.add(z, left);
    // Each pixel by itself: what its neighbours in the vector need must not change it.
    const out = outOf(x, y, z);
    if (!v128.any_true(out)) break;
    const room = v128.bitselect(roomIn(light, x, y, z), f32x4.splat(1), out);
    if (k == NEARER) {
      x = held(light, x, room);
      y = held(light, y, room);
      z = held(light, z, room);
      break;
    }
    p = f32x4.mul(p, room);
    q = f32x4.mul(q, room);
  }
  channel0 = gatherUnit(levels, knots, x);
  channel1 = gatherUnit(levels, knots, y);
  channel2 = gatherUnit(levels, knots, z);
  if (v128.all_true<i32>(isColour)) return;
  const grey = gatherUnit(greys, greyKnots, t);
  channel0 = v128.bitselect(channel0, grey, isColour);
  channel1 = v128.bitselect(channel1, grey, isColour);
  channel2 = v128.bitselect(channel2, grey, isColour);
}

// @ts-ignore: decorator
@inline function rounded16(level: v128): v128 {
  const bounded = f32x4.pmin(f32x4.pmax(level, f32x4.splat(0)), f32x4.splat(65535));
  return i32x4.trunc_sat_f32x4_s(f32x4.add(bounded, f32x4.splat(0.5)));
}

// @ts-ignore: decorator
@inline function lane(v: v128, k: i32): i32 {
  return k == 0 ? i32x4.extract_lane(v, 0) : k == 1 ? i32x4.extract_lane(v, 1) : k == 2 ? i32x4.extract_lane(v, 2) : i32x4.extract_lane(v, 3);
}

/** The square of a tone's lightness in OKLab: its luminance to the power of ⅔. */
// @ts-ignore: decorator
@inline function squareRoot3(tone: v128): v128 {
  const root = rootOf(tone, luminanceOf(tone));
  return f32x4.mul(root, root);
}

/** What a and b give to the cube root of one of L, M, S. */
// @ts-ignore: decorator
@inline function along(constants: usize, which: usize, a: v128, b: v128): v128 {
  const at = constants + FROM_AB + (which << 3);
  return f32x4.add(f32x4.mul(v128.load32_splat(at), a), f32x4.mul(v128.load32_splat(at + 4), b));
}

// @ts-ignore: decorator
@inline function channel(constants: usize, which: usize, l: v128, m: v128, s: v128): v128 {
  return row3(constants + TO_CHANNELS + 12 * which, l, m, s);
}

/** What rounding and the last step towards the lightness left of the light: it is made up in grey. */
// @ts-ignore: decorator
@inline function leftOf(constants: usize, light: v128, x: v128, y: v128, z: v128): v128 {
  return f32x4.sub(light, row3(constants + CHANNEL_LIGHT, x, y, z));
}

/** The lightness at which a colour with a and b has this luminance. `root` is the third root of that. */
// @ts-ignore: decorator
@inline function lightnessOf(constants: usize, light: v128, root: v128, a: v128, b: v128): v128 {
  const by = constants + LMS_LIGHT;
  const k0 = along(constants, 0, a, b), k1 = along(constants, 1, a, b), k2 = along(constants, 2, a, b);
  // Σ y (L + k)³ = L³ + 3 p L² + 3 q L + s
  const three = f32x4.splat(3);
  const p = row3(by, k0, k1, k2), p3 = f32x4.mul(three, p);
  const q3 = f32x4.mul(three, row3(by, f32x4.mul(k0, k0), f32x4.mul(k1, k1), f32x4.mul(k2, k2)));
  const s = f32x4.sub(row3(by, cube(k0), cube(k1), cube(k2)), light);
  const once = nearerRoot(f32x4.sub(root, p), p3, q3, s);
  // One step is enough for the faint.
  const isStrong = f32x4.gt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b)), f32x4.splat(FAINT));
  return v128.any_true(isStrong) ? v128.bitselect(nearerRoot(once, p3, q3, s), once, isStrong) : once;
}

/** A step of Newton's towards the root of L³ + p3 L² + q3 L + s. */
// @ts-ignore: decorator
@inline function nearerRoot(L: v128, p3: v128, q3: v128, s: v128): v128 {
  const over = f32x4.add(f32x4.mul(f32x4.add(f32x4.mul(f32x4.add(L, p3), L), q3), L), s);
  const slope = f32x4.add(f32x4.mul(f32x4.add(f32x4.mul(f32x4.splat(3), L), f32x4.add(p3, p3)), L), q3);
  return f32x4.sub(L, f32x4.div(over, f32x4.pmax(slope, f32x4.splat(1e-4))));
}

/** How far a colour may lie from the grey of its light without leaving 0–1; 1 where it does not. */
// @ts-ignore: decorator
@inline function roomIn(light: v128, red: v128, green: v128, blue: v128): v128 {
  const tiny = f32x4.splat(1e-12);
  const x = f32x4.sub(red, light), y = f32x4.sub(green, light), z = f32x4.sub(blue, light);
  const over = f32x4.pmax(f32x4.pmax(x, y), z), under = f32x4.pmin(f32x4.pmin(x, y), z);
  const above = f32x4.div(f32x4.sub(f32x4.splat(1), light), f32x4.pmax(over, tiny));
  const below = f32x4.div(light, f32x4.pmax(f32x4.neg(under), tiny));
  return clamp01(f32x4.pmin(above, below));
}

// @ts-ignore: decorator
@inline function held(light: v128, one: v128, room: v128): v128 {
  return f32x4.add(light, f32x4.mul(room, f32x4.sub(one, light)));
}

/** Where any of the channels is beyond 0–1 by more than a table's end makes good. */
// @ts-ignore: decorator
@inline function outOf(x: v128, y: v128, z: v128): v128 {
  const under = f32x4.lt(f32x4.pmin(f32x4.pmin(x, y), z), f32x4.splat(-1e-6));
  const over = f32x4.gt(f32x4.pmax(f32x4.pmax(x, y), z), f32x4.splat(1.000001));
  return v128.or(under, over);
}
