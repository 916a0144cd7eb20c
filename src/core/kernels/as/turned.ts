// Rows of a turned picture, read between its pixels. A weight row is eight floats, of which the last two are 0.

/** Steps from one pixel to the next at which weights are known, TURN_PHASES of ../turnWeights.ts. */
const PHASES: f64 = 1024;
/** Bytes of a weight row. */
const WEIGHTS: usize = 32;

// @ts-ignore: decorator
@inline function rowOf(at: usize, by: usize, sum: v128): v128 {
  return f32x4.add(sum, f32x4.mul(v128.load(at), v128.load32_splat(by)));
}

/**
 * Values of a plane along a line that begins at (x, y), in pixels from the middle of the first, and goes on by a step. The plane goes on for two pixels before each
 * place and five after. n: any.
 */
export function turnRow(src: usize, stride: i32, x: f64, y: f64, stepX: f64, stepY: f64, out: usize, n: i32, weights: usize): void {
  const row = <usize>stride << 2;
  for (let i = 0; i < n; i++) {
    const px = x + <f64>i * stepX;
    const py = y + <f64>i * stepY;
    const left = Math.floor(px);
    const top = Math.floor(py);
    const wx = weights + <usize>(<i32>((px - left) * PHASES + 0.5)) * WEIGHTS;
    const wy = weights + <usize>(<i32>((py - top) * PHASES + 0.5)) * WEIGHTS;
    let at = src + (<usize>(<i32>top - 2) * <usize>stride + <usize>(<i32>left - 2)) * 4;
    let first = f32x4.splat(0);
    let last = f32x4.splat(0);
    for (let k: usize = 0; k < 24; k += 4) {
      first = rowOf(at, wy + k, first);
      last = rowOf(at + 16, wy + k, last);
      at += row;
    }
    const sum = f32x4.add(f32x4.mul(first, v128.load(wx)), f32x4.mul(last, v128.load(wx + 16)));
    const value = f32x4.extract_lane(sum, 0) + f32x4.extract_lane(sum, 1) + f32x4.extract_lane(sum, 2) + f32x4.extract_lane(sum, 3);
    store<f32>(out + (<usize>i << 2), max<f32>(min<f32>(value, 1), 0));
  }
}
