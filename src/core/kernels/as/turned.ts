// A turned picture, read between its pixels. A weight row is eight floats, of which the last two are 0.

/** Places are whole numbers, 2^32 to a pixel: in whatever pieces a picture is turned, each place comes out the same, to the last bit. */
const ONE: f64 = 4294967296.0;
/** What is left of a part of a pixel for its weights: TURN_PHASES of ../turnWeights.ts are 2^10. */
const PHASE: i64 = 22;
const HALF_PHASE: i64 = 1 << 21;
/** Bytes of a weight row, as a shift. */
const WEIGHTS: usize = 5;

// @ts-ignore: decorator
@inline function rowOf(at: usize, by: v128, sum: v128): v128 {
  return f32x4.add(sum, f32x4.mul(v128.load(at), by));
}

/**
 * A piece of a turned picture, values 0–1: columns and rows from (left, top) on, of which the first of all lies at (x, y) and others by
 * steps across and down. Places in pixels from the middle of the plane's first; `src` holds the plane from (fromX, fromY) on, two pixels
 * before each place and five after. columns, rows: any.
 */
export function turnPiece(
  src: usize, stride: i32, fromX: i32, fromY: i32, x: f64, y: f64, acrossX: f64, acrossY: f64, downX: f64, downY: f64,
  left: i32, top: i32, columns: i32, rows: i32, out: usize, weights: usize,
): void {
  const row = <usize>stride << 2;
  const stepX = <i64>Math.round(acrossX * ONE);
  const stepY = <i64>Math.round(acrossY * ONE);
  const nextX = <i64>Math.round(downX * ONE);
  const nextY = <i64>Math.round(downY * ONE);
  // Half a phase on, so that the nearest is the one below.
  const beginX = <i64>Math.round(x * ONE) - (<i64>fromX << 32) + HALF_PHASE + <i64>left * stepX;
  const beginY = <i64>Math.round(y * ONE) - (<i64>fromY << 32) + HALF_PHASE + <i64>left * stepY;
  for (let r = top; r < top + rows; r++) {
    let px = beginX + <i64>r * nextX;
    let py = beginY + <i64>r * nextY;
    for (let c = 0; c < columns; c++) {
      const wx = weights + (<usize>((px & 0xffffffff) >> PHASE) << WEIGHTS);
      const wy = weights + (<usize>((py & 0xffffffff) >> PHASE) << WEIGHTS);
      const at = src + <usize>(<i32>(py >> 32) - 2) * row + (<usize>(<i32>(px >> 32) - 2) << 2);
      const a = v128.load(wy);
      const b = v128.load(wy + 16);
      const w0 = v128.shuffle<f32>(a, a, 0, 0, 0, 0);
      const w1 = v128.shuffle<f32>(a, a, 1, 1, 1, 1);
      const w2 = v128.shuffle<f32>(a, a, 2, 2, 2, 2);
      const w3 = v128.shuffle<f32>(a, a, 3, 3, 3, 3);
      const w4 = v128.shuffle<f32>(b, b, 0, 0, 0, 0);
      const w5 = v128.shuffle<f32>(b, b, 1, 1, 1, 1);
      const at3 = at + 3 * row;
      // Two sums a half, so that one need not wait for the other.
      const first = f32x4.add(
        rowOf(at + 2 * row, w2, rowOf(at + row, w1, f32x4.mul(v128.load(at), w0))),
        rowOf(at3 + 2 * row, w5, rowOf(at3 + row, w4, f32x4.mul(v128.load(at3), w3))),
      );
      const last = f32x4.add(
        rowOf(at + 2 * row + 16, w2, rowOf(at + row + 16, w1, f32x4.mul(v128.load(at + 16), w0))),
        rowOf(at3 + 2 * row + 16, w5, rowOf(at3 + row + 16, w4, f32x4.mul(v128.load(at3 + 16), w3))),
      );
      const sum = f32x4.add(f32x4.mul(first, v128.load(wx)), f32x4.mul(last, v128.load(wx + 16)));
      const pairs = f32x4.add(sum, v128.shuffle<f32>(sum, sum, 2, 3, 0, 1));
      const value = f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1);
      store<f32>(out, max<f32>(min<f32>(value, 1), 0));
      out += 4;
      px += stepX;
      py += stepY;
    }
  }
}
