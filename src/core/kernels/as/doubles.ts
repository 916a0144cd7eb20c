// Four floats as twice two doubles, and back: sums in doubles, rounded once.

// @ts-ignore: decorator
@inline export function low(v: v128): v128 {
  return f64x2.promote_low_f32x4(v);
}
// @ts-ignore: decorator
@inline export function high(v: v128): v128 {
  return f64x2.promote_low_f32x4(v128.shuffle<f32>(v, v, 2, 3, 2, 3));
}
// @ts-ignore: decorator
@inline export function floats(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(f32x4.demote_f64x2_zero(a), f32x4.demote_f64x2_zero(b), 0, 1, 4, 5);
}
