// Colour beside the tone: a and b of OKLab, laid after the mix, and what comes of them and a tone.
import { clamp01, cube, cubeRoot, gatherUnit, luminanceOf, row3 } from "./lanes";

// Constants: linear P3 to LMS (9), LMS to lightness, a, b (9), what a and b give to the cube roots of L, M, S (6), what each of these gives to luminance (3), LMS to the channels
// that are made (9), what each of those gives to luminance (3).
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

/** plane → plane and what is laid on it by amounts; `replaces` 1 takes away as much of what was there, 0 nothing. */
export function layChroma(plane: usize, laid: usize, amount: usize, n: i32, replaces: f32): void {
  const one = f32x4.splat(1), less = f32x4.splat(replaces);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const by = v128.load(amount + i);
    const left = f32x4.sub(one, f32x4.mul(less, f32x4.pmin(by, one)));
    v128.store(plane + i, f32x4.add(f32x4.mul(v128.load(plane + i), left), f32x4.mul(by, v128.load(laid + i))));
  }
}

/** Linear P3 → a and b of OKLab, times a saturation, and less where the tone given is darker than the colour: as if less light fell on it. tone 0: as they are. Constants of P3. */
export function chromaOf(r: usize, g: usize, b: usize, tone: usize, outA: usize, outB: usize, n: i32, constants: usize, saturation: f32): void {
  const most = f32x4.splat(saturation), tiny = f32x4.splat(1e-6);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const l = signedRoot(row3(constants, red, green, blue));
    const m = signedRoot(row3(constants + 12, red, green, blue));
    const s = signedRoot(row3(constants + 24, red, green, blue));
    let scale = most;
    if (tone) {
      const own = cubeRoot(row3(constants + CHANNEL_LIGHT, red, green, blue)), t = v128.load(tone + i), wanted = rootOf(t, luminanceOf(t));
      scale = f32x4.mul(most, clamp01(f32x4.div(wanted, f32x4.pmax(own, tiny))));
    }
    const p = f32x4.mul(scale, row3(constants + TO_LAB + 12, l, m, s)), q = f32x4.mul(scale, row3(constants + TO_LAB + 24, l, m, s));
    const isColour = f32x4.gt(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)), f32x4.splat(NONE));
    v128.store(outA + i, v128.and(p, isColour));
    v128.store(outB + i, v128.and(q, isColour));
  }
}

/** tone, a, b → the linear light of three channels, whose luminance is the tone's; below 0 and over 1 where they cannot show it. */
export function colourLight(tone: usize, a: usize, b: usize, r: usize, g: usize, blue: usize, n: i32, constants: usize): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const t = v128.load(tone + i), light = luminanceOf(t);
    lightAs(constants, light, rootOf(t, light), v128.load(a + i), v128.load(b + i));
    v128.store(r + i, channel0);
    v128.store(g + i, channel1);
    v128.store(blue + i, channel2);
  }
}

/**
 * tone, a, b → the tones of three channels, as if each were a grey's. What they cannot show gives way in its chroma, at its hue, and stays at its luminance. Without chroma each is the
 * tone itself. The table gives the tone of luminance.
 */
export function colourTones(tone: usize, a: usize, b: usize, r: usize, g: usize, blue: usize, n: i32, constants: usize, table: usize, knots: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const t = v128.load(tone + i);
    let p = v128.load(a + i), q = v128.load(b + i);
    const isColour = f32x4.gt(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)), f32x4.splat(NONE));
    if (!v128.any_true(isColour)) {
      v128.store(r + i, t);
      v128.store(g + i, t);
      v128.store(blue + i, t);
      continue;
    }
    const light = luminanceOf(t), root = rootOf(t, light);
    lightAs(constants, light, root, p, q);
    for (let k: i32 = 0; k < NEARER && isOut(); k++) {
      const room = roomIn(light);
      p = f32x4.mul(p, room);
      q = f32x4.mul(q, room);
      lightAs(constants, light, root, p, q);
    }
    if (isOut()) hold(light);
    v128.store(r + i, v128.bitselect(gatherUnit(table, knots, channel0), t, isColour));
    v128.store(g + i, v128.bitselect(gatherUnit(table, knots, channel1), t, isColour));
    v128.store(blue + i, v128.bitselect(gatherUnit(table, knots, channel2), t, isColour));
  }
}

/** a and b of two tones in one pixel, so much of it of the second: those of their light together. Chroma times the square of lightness adds up like light. */
export function meanChroma(toneA: usize, toneB: usize, share: usize, mean: usize, first: usize, second: usize, out: usize, n: i32): void {
  const tiny = f32x4.splat(1e-6);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const from = f32x4.mul(squareRoot3(v128.load(toneA + i)), v128.load(first + i));
    const to = f32x4.mul(squareRoot3(v128.load(toneB + i)), v128.load(second + i));
    const sum = f32x4.add(from, f32x4.mul(v128.load(share + i), f32x4.sub(to, from)));
    v128.store(out + i, f32x4.div(sum, f32x4.pmax(squareRoot3(v128.load(mean + i)), tiny)));
  }
}

/** The third root of a tone's luminance: above L* 8 that is how it is made. */
// @ts-ignore: decorator
@inline function rootOf(tone: v128, light: v128): v128 {
  const root = f32x4.mul(f32x4.add(tone, f32x4.splat(0.16)), f32x4.splat(1.0 / 1.16));
  const isDark = f32x4.le(tone, f32x4.splat(0.08));
  return v128.any_true(isDark) ? v128.bitselect(cubeRoot(light), root, isDark) : root;
}

/** The square of a tone's lightness in OKLab: its luminance to the power of ⅔. */
// @ts-ignore: decorator
@inline function squareRoot3(tone: v128): v128 {
  const root = rootOf(tone, luminanceOf(tone));
  return f32x4.mul(root, root);
}

/** The light of the channels of a colour with a and b, at the lightness at which it has this luminance. `root` is the third root of that. */
// @ts-ignore: decorator
@inline function lightAs(constants: usize, light: v128, root: v128, a: v128, b: v128): void {
  const at = constants + FROM_AB, by = constants + LMS_LIGHT;
  const k0 = f32x4.add(f32x4.mul(v128.load32_splat(at), a), f32x4.mul(v128.load32_splat(at + 4), b));
  const k1 = f32x4.add(f32x4.mul(v128.load32_splat(at + 8), a), f32x4.mul(v128.load32_splat(at + 12), b));
  const k2 = f32x4.add(f32x4.mul(v128.load32_splat(at + 16), a), f32x4.mul(v128.load32_splat(at + 20), b));
  // Σ y (L + k)³ = L³ + 3 p L² + 3 q L + s
  const three = f32x4.splat(3);
  const p = row3(by, k0, k1, k2), p3 = f32x4.mul(three, p);
  const q3 = f32x4.mul(three, row3(by, f32x4.mul(k0, k0), f32x4.mul(k1, k1), f32x4.mul(k2, k2)));
  const s = f32x4.sub(row3(by, cube(k0), cube(k1), cube(k2)), light);
  let L = f32x4.sub(root, p);
  // One step is enough for the faint.
  const steps = v128.any_true(f32x4.gt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b)), f32x4.splat(FAINT))) ? 2 : 1;
  for (let k: i32 = 0; k < steps; k++) {
    const over = f32x4.add(f32x4.mul(f32x4.add(f32x4.mul(f32x4.add(L, p3), L), q3), L), s);
    const slope = f32x4.add(f32x4.mul(f32x4.add(f32x4.mul(three, L), f32x4.add(p3, p3)), L), q3);
    L = f32x4.sub(L, f32x4.div(over, f32x4.pmax(slope, f32x4.splat(1e-4))));
  }
  const l = cube(f32x4.add(L, k0)), m = cube(f32x4.add(L, k1)), n = cube(f32x4.add(L, k2));
  const to = constants + TO_CHANNELS;
  const x = row3(to, l, m, n), y = row3(to + 12, l, m, n), z = row3(to + 24, l, m, n);
  // What rounding and the last step left is made up in grey.
  const left = f32x4.sub(light, row3(constants + CHANNEL_LIGHT, x, y, z));
  channel0 = f32x4.add(x, left);
  channel1 = f32x4.add(y, left);
  channel2 = f32x4.add(z, left);
}

/** How far the colour of the channels may lie from the grey of its light without leaving 0–1; 1 where it does not. */
// @ts-ignore: decorator
@inline function roomIn(light: v128): v128 {
  const tiny = f32x4.splat(1e-12);
  const x = f32x4.sub(channel0, light), y = f32x4.sub(channel1, light), z = f32x4.sub(channel2, light);
  const over = f32x4.pmax(f32x4.pmax(x, y), z), under = f32x4.pmin(f32x4.pmin(x, y), z);
  const above = f32x4.div(f32x4.sub(f32x4.splat(1), light), f32x4.pmax(over, tiny));
  const below = f32x4.div(light, f32x4.pmax(f32x4.neg(under), tiny));
  return clamp01(f32x4.pmin(above, below));
}

/** Whether any of the channels is beyond 0–1 by more than a table's end makes good. */
// @ts-ignore: decorator
@inline function isOut(): bool {
  const under = f32x4.lt(f32x4.pmin(f32x4.pmin(channel0, channel1), channel2), f32x4.splat(-1e-6));
  const over = f32x4.gt(f32x4.pmax(f32x4.pmax(channel0, channel1), channel2), f32x4.splat(1.000001));
  return v128.any_true(v128.or(under, over));
}

/** The channels, nearer to the grey of their light as far as they must. */
// @ts-ignore: decorator
@inline function hold(light: v128): void {
  const room = roomIn(light);
  channel0 = f32x4.add(light, f32x4.mul(room, f32x4.sub(channel0, light)));
  channel1 = f32x4.add(light, f32x4.mul(room, f32x4.sub(channel1, light)));
  channel2 = f32x4.add(light, f32x4.mul(room, f32x4.sub(channel2, light)));
}

// @ts-ignore: decorator
@inline function signedRoot(v: v128): v128 {
  return v128.bitselect(cubeRoot(v), f32x4.neg(cubeRoot(f32x4.neg(v))), f32x4.ge(v, f32x4.splat(0)));
}
