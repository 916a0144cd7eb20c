// How far colours lie from some that were touched.
import { row3, signedRoot } from "./lanes";

/**
 * Linear P3 → the distance in OKLab from the nearest of some colours (lightness, a, b one after the other), over a reach, 1 at the most;
 * lightness counts by its weight. constants: P3 to LMS (9), LMS to lightness, a, b (9).
 */
export function distanceFrom(r: usize, g: usize, b: usize, out: usize, n: i32, constants: usize, colours: usize, count: i32, weight: f32, reach: f32): void {
  const light = f32x4.splat(weight), scale = f32x4.splat(1 / (reach * reach)), one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const red = v128.load(r + i), green = v128.load(g + i), blue = v128.load(b + i);
    const l = signedRoot(row3(constants, red, green, blue));
    const m = signedRoot(row3(constants + 12, red, green, blue));
    const s = signedRoot(row3(constants + 24, red, green, blue));
    const L = row3(constants + 36, l, m, s), p = row3(constants + 48, l, m, s), q = row3(constants + 60, l, m, s);
    let least = f32x4.splat(1e9);
    for (let k: i32 = 0, at = colours; k < count; k++, at += 12) {
      const dl = f32x4.mul(light, f32x4.sub(L, v128.load32_splat(at)));
      const dp = f32x4.sub(p, v128.load32_splat(at + 4)), dq = f32x4.sub(q, v128.load32_splat(at + 8));
      least = f32x4.pmin(least, f32x4.add(f32x4.add(f32x4.mul(dl, dl), f32x4.mul(dp, dp)), f32x4.mul(dq, dq)));
    }
    v128.store(out + i, f32x4.pmin(f32x4.sqrt(f32x4.mul(least, scale)), one));
  }
}
