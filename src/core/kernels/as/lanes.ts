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
