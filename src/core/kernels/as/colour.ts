// Colour changed before it is mixed: linear Display P3 in three planes, in place.
import { clamp01, cube, cubeRoot, exp2, gatherUnit, row3, turns } from "./lanes";

// Constants: P3 to LMS (9), LMS to lightness, a, b (9), the inverse of that (9), LMS to the source's channels (9), P3 to them (9), them to
// P3 (9), what each of them gives to luminance (3), chroma where colour begins to count, 1 ∕ the width of its fade.
const TO_LAB: usize = 36;
const LAB_TO_LMS: usize = 72;
const LMS_TO_SOURCE: usize = 108;
const TO_SOURCE: usize = 144;
const FROM_SOURCE: usize = 180;
const LIGHT: usize = 216;
const FADE: usize = 228;

/**
 * a and b of OKLab moved along a line as far as they are coloured, then turned and scaled by tables over hue; luminance stays. parting:
 * what a and b give to it, what is added, how far a and b go along (5). Tables of one knot are the same for all hues, and have nothing
 * across.
 */
export function separate(r: usize, g: usize, b: usize, n: i32, constants: usize, along: usize, across: usize, knots: i32, parting: usize): void {
  const from = v128.load32_splat(constants + FADE), scale = v128.load32_splat(constants + FADE + 4);
  const fromA = v128.load32_splat(parting), fromB = v128.load32_splat(parting + 4), offset = v128.load32_splat(parting + 8);
  const alongA = v128.load32_splat(parting + 12), alongB = v128.load32_splat(parting + 16);
  const isParted = v128.any_true(v128.or(alongA, alongB));
  const level = v128.load32_splat(along);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const light = lightOf(constants, red, green, blue);
    let l = cubeRoot(row3(constants, red, green, blue));
    let m = cubeRoot(row3(constants + 12, red, green, blue));
    let s = cubeRoot(row3(constants + 24, red, green, blue));
    const L = row3(constants + TO_LAB, l, m, s);
    let p = row3(constants + TO_LAB + 12, l, m, s), q = row3(constants + TO_LAB + 24, l, m, s);
    if (isParted) {
      const chroma = f32x4.sqrt(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)));
      const u = clamp01(f32x4.mul(f32x4.sub(chroma, from), scale));
      const fade = f32x4.mul(f32x4.mul(u, u), f32x4.sub(f32x4.splat(3), f32x4.add(u, u)));
      const by = f32x4.mul(fade, f32x4.add(f32x4.add(f32x4.mul(fromA, p), f32x4.mul(fromB, q)), offset));
      p = f32x4.add(p, f32x4.mul(by, alongA));
      q = f32x4.add(q, f32x4.mul(by, alongB));
    }
    let A = f32x4.mul(level, p), B = f32x4.mul(level, q);
    if (knots > 1) {
      const hue = turns(p, q);
      const c = gatherUnit(along, knots, hue), t = gatherUnit(across, knots, hue);
      A = f32x4.sub(f32x4.mul(c, p), f32x4.mul(t, q));
      B = f32x4.add(f32x4.mul(t, p), f32x4.mul(c, q));
    }
    l = cube(row3(constants + LAB_TO_LMS, L, A, B));
    m = cube(row3(constants + LAB_TO_LMS + 12, L, A, B));
    s = cube(row3(constants + LAB_TO_LMS + 24, L, A, B));
    const at = constants + LMS_TO_SOURCE;
    const x = row3(at, l, m, s), y = row3(at + 12, l, m, s), z = row3(at + 24, l, m, s);
    const made = row3(constants + LIGHT, x, y, z), tiny = f32x4.splat(1e-12);
    const back = v128.and(f32x4.div(light, f32x4.pmax(made, tiny)), f32x4.gt(made, tiny));
    storeHeld(r + i, g + i, b + i, constants, light, f32x4.mul(x, back), f32x4.mul(y, back), f32x4.mul(z, back));
  }
}

/** Colour lit by stops, kept between black and white: Y' = kY ∕ (1 + (k − 1)Y), k = 2^stops; its hue stays. */
export function lightColour(r: usize, g: usize, b: usize, stops: usize, n: i32, constants: usize): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const light = clamp01(lightOf(constants, red, green, blue));
    const k = exp2(v128.load(stops + i));
    const gain = f32x4.div(k, f32x4.add(one, f32x4.mul(f32x4.sub(k, one), light)));
    const at = constants + TO_SOURCE;
    const x = row3(at, red, green, blue), y = row3(at + 12, red, green, blue), z = row3(at + 24, red, green, blue);
    storeHeld(r + i, g + i, b + i, constants, f32x4.mul(light, gain), f32x4.mul(x, gain), f32x4.mul(y, gain), f32x4.mul(z, gain));
  }
}

/** From colour as it was (three planes) so far to what it became: by an amount, and by a mask where there is one. */
export function towardsColour(r: usize, g: usize, b: usize, wasR: usize, wasG: usize, wasB: usize, mask: usize, amount: f32, n: i32): void {
  towards(r, wasR, mask, amount, n);
  towards(g, wasG, mask, amount, n);
  towards(b, wasB, mask, amount, n);
}
// @ts-ignore: decorator
@inline function towards(plane: usize, was: usize, mask: usize, amount: f32, n: i32): void {
  const all = f32x4.splat(amount);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const from = v128.load(was + i);
    const share = mask ? f32x4.mul(all, v128.load(mask + i)) : all;
    v128.store(plane + i, f32x4.add(from, f32x4.mul(share, f32x4.sub(v128.load(plane + i), from))));
  }
}

/** Luminance, through the source's channels, so that what is made of them meets it. */
// @ts-ignore: decorator
@inline function lightOf(constants: usize, red: v128, green: v128, blue: v128): v128 {
  const at = constants + TO_SOURCE;
  return row3(constants + LIGHT, row3(at, red, green, blue), row3(at + 12, red, green, blue), row3(at + 24, red, green, blue));
}

/** Stores a colour of the source's channels as P3; what lies outside gives way towards the grey of its light. */
// @ts-ignore: decorator
@inline function storeHeld(r: usize, g: usize, b: usize, constants: usize, light: v128, x: v128, y: v128, z: v128): void {
  const tiny = f32x4.splat(1e-12);
  const p = f32x4.sub(x, light), q = f32x4.sub(y, light), s = f32x4.sub(z, light);
  const over = f32x4.pmax(f32x4.pmax(p, q), s), under = f32x4.pmin(f32x4.pmin(p, q), s);
  const room = f32x4.pmin(f32x4.div(f32x4.sub(f32x4.splat(1), light), f32x4.pmax(over, tiny)), f32x4.div(light, f32x4.pmax(f32x4.neg(under), tiny)));
  const keep = clamp01(room);
  const red = f32x4.add(light, f32x4.mul(p, keep)), green = f32x4.add(light, f32x4.mul(q, keep)), blue = f32x4.add(light, f32x4.mul(s, keep));
  const at = constants + FROM_SOURCE;
  v128.store(r, row3(at, red, green, blue));
  v128.store(g, row3(at + 12, red, green, blue));
  v128.store(b, row3(at + 24, red, green, blue));
}
