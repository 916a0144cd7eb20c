// What kernels share: four floats at once.

// @ts-ignore: decorator
@inline export function clamp01(v: v128): v128 {
  return f32x4.pmin(f32x4.pmax(v, f32x4.splat(0)), f32x4.splat(1));
}

// @ts-ignore: decorator
@inline export function row3(m: usize, r: v128, g: v128, b: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(v128.load32_splat(m), r), f32x4.mul(v128.load32_splat(m + 4), g)),
    f32x4.mul(v128.load32_splat(m + 8), b),
  );
}

/** Cube root of v in 0–1: a start from the exponent, then three Newton steps. */
// @ts-ignore: decorator
@inline export function cubeRoot(v: v128): v128 {
  // exponent ∕ 3 through floats; 0x2a514067 centres the error of the start
  const third = f32x4.splat(1.0 / 3.0);
  let x: v128 = i32x4.add(i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.convert_i32x4_s(v), third)), i32x4.splat(0x2a514067));
  for (let k: i32 = 0; k < 3; k++)
    x = f32x4.mul(third, f32x4.add(f32x4.add(x, x), f32x4.div(v, f32x4.mul(x, x))));
  return v128.and(x, f32x4.gt(v, f32x4.splat(0)));
}

// Adding 2^23 to a float below it leaves its integer part in the low mantissa bits.
export const MAGIC: f32 = 8388608.0;
export const MANTISSA: i32 = 0x7fffff;

/** Four values read from a table of knots + 1 (value, step to the next) pairs at x, in knots, 0 ≤ x ≤ knots. */
// @ts-ignore: decorator
@inline export function gather(table: usize, x: v128): v128 {
  const whole = f32x4.floor(x);
  const f = f32x4.sub(x, whole);
  return pairsAt(table, i32x4.shl(v128.and(f32x4.add(whole, f32x4.splat(MAGIC)), i32x4.splat(MANTISSA)), 3), f);
}

/** Four pairs of (value, step to the next), at byte offsets, each read a part f on. */
// @ts-ignore: decorator
@inline export function pairsAt(table: usize, at: v128, f: v128): v128 {
  const q01 = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 1), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 0)), 1);
  const q23 = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 3), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 2)), 1);
  const value = v128.shuffle<f32>(q01, q23, 0, 2, 4, 6);
  const step = v128.shuffle<f32>(q01, q23, 1, 3, 5, 7);
  return f32x4.add(value, f32x4.mul(step, f));
}

/** The same for x of 0–1 over the whole table. */
// @ts-ignore: decorator
@inline export function gatherUnit(table: usize, knots: i32, v: v128): v128 {
  const top = f32x4.splat(<f32>knots);
  return gather(table, f32x4.pmin(f32x4.pmax(f32x4.mul(v, top), f32x4.splat(0)), top));
}

/** Angle of (a, b) in turns 0–1; odd polynomial on the first octant, error below 2e-6 turns. */
// @ts-ignore: decorator
@inline export function turns(a: v128, b: v128): v128 {
  const ax = f32x4.abs(a), ay = f32x4.abs(b);
  const q = f32x4.div(f32x4.pmin(ax, ay), f32x4.pmax(f32x4.pmax(ax, ay), f32x4.splat(1e-20)));
  const s = f32x4.mul(q, q);
  let p = f32x4.splat(-0.01172120);
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.05265332));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.11643287));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.19354346));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.33262347));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.99997726));
  let w = f32x4.mul(f32x4.mul(p, q), f32x4.splat(0.15915494309));
  w = v128.bitselect(f32x4.sub(f32x4.splat(0.25), w), w, f32x4.gt(ay, ax));
  w = v128.bitselect(f32x4.sub(f32x4.splat(0.5), w), w, f32x4.lt(a, f32x4.splat(0)));
  w = v128.bitselect(f32x4.sub(f32x4.splat(1), w), w, f32x4.lt(b, f32x4.splat(0)));
  return f32x4.sub(w, v128.and(f32x4.splat(1), f32x4.ge(w, f32x4.splat(1))));
}

/** 2^v for |v| below 100: integer part into the exponent, degree-5 polynomial for the rest. */
// @ts-ignore: decorator
@inline export function exp2(v: v128): v128 {
  const whole = f32x4.nearest(v), f = f32x4.sub(v, whole);
  let p = f32x4.splat(0.0013333558);
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(0.0096181291));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(0.0555041087));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(0.2402265070));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(0.6931471806));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1));
  const power: v128 = i32x4.shl(i32x4.add(i32x4.trunc_sat_f32x4_s(whole), i32x4.splat(127)), 23);
  return f32x4.mul(p, power);
}

// @ts-ignore: decorator
@inline export function cube(v: v128): v128 {
  return f32x4.mul(f32x4.mul(v, v), v);
}

// CIE 1976 L*: linear up to L* 8, a cube above.
// @ts-ignore: decorator
@inline export function luminanceOf(t: v128): v128 {
  const u = f32x4.mul(f32x4.add(t, f32x4.splat(0.16)), f32x4.splat(1.0 / 1.16));
  const linear = f32x4.mul(t, f32x4.splat(100.0 * 27.0 / 24389.0));
  return v128.bitselect(f32x4.mul(f32x4.mul(u, u), u), linear, f32x4.gt(t, f32x4.splat(0.08)));
}
// @ts-ignore: decorator
@inline export function toneOf(y: v128): v128 {
  const cube = f32x4.sub(f32x4.mul(cubeRoot(y), f32x4.splat(1.16)), f32x4.splat(0.16));
  return v128.bitselect(cube, f32x4.mul(y, f32x4.splat(24389.0 / 2700.0)), f32x4.gt(y, f32x4.splat(216.0 / 24389.0)));
}

/** Levels 0–255 with offsets that are held where they would carry bare paper or black further than a rounding. */
// @ts-ignore: decorator
@inline export function rounded8(level: v128, dither: v128): v128 {
  const top = f32x4.splat(255);
  const most = f32x4.add(f32x4.pmin(level, f32x4.sub(top, level)), f32x4.splat(0.498));
  const e = f32x4.add(level, f32x4.pmin(f32x4.pmax(dither, f32x4.neg(most)), most));
  const bounded = f32x4.pmin(f32x4.pmax(e, f32x4.splat(0)), top);
  return v128.and(f32x4.add(bounded, f32x4.splat(MAGIC)), i32x4.splat(0xff));
}

/** Cube root of v in −1–1: a start from the exponent, then two of Halley's steps. */
// @ts-ignore: decorator
@inline export function signedRoot(v: v128): v128 {
  const size = f32x4.abs(v), third = f32x4.splat(1.0 / 3.0);
  let x: v128 = i32x4.add(i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.convert_i32x4_s(size), third)), i32x4.splat(0x2a514067));
  for (let k: i32 = 0; k < 2; k++) {
    const power = cube(x);
    x = f32x4.div(f32x4.mul(x, f32x4.add(power, f32x4.add(size, size))), f32x4.add(f32x4.add(power, power), size));
  }
  return v128.or(v128.and(x, f32x4.gt(size, f32x4.splat(0))), v128.and(v, i32x4.splat(0x80000000)));
}
