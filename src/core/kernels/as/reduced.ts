// Planes brought down to fewer pixels, blurred by boxes, and read between their cells. Every sum is a double, rounded once, whatever is
// done together.
import { floats, high, low } from "./doubles";

/** sums + weight · row. */
export function addRow(sums: usize, row: usize, n: i32, weight: f64): void {
  const by = f64x2.splat(weight);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const v = v128.load(row + i), sum = v128.load(sums + i);
    v128.store(sums + i, floats(f64x2.add(low(sum), f64x2.mul(by, low(v))), f64x2.add(high(sum), f64x2.mul(by, high(v)))));
  }
}

/**
 * A row brought down to fewer columns: whole numbers say which is the first that each covers and the one after the last, floats how much of
 * these two. n: any.
 */
export function reduceColumns(row: usize, first: usize, end: usize, left: usize, right: usize, out: usize, n: i32, scale: f64): void {
  for (let i: usize = 0, bytes = <usize>n << 2; i < bytes; i += 4) {
    let at = row + (<usize>load<u32>(first + i) << 2);
    const last = row + ((<usize>load<u32>(end + i) - 1) << 2);
    let sum = <f64>load<f32>(at) * <f64>load<f32>(left + i);
    if (last > at) {
      for (at += 4; at < last; at += 4) sum += <f64>load<f32>(at);
      sum += <f64>load<f32>(last) * <f64>load<f32>(right + i);
    }
    store<f32>(out + i, <f32>(sum / scale));
  }
}

/** The sum of 2 · reach + 1 values of a row times the share of each, a double; rows of `width`, any. */
export function boxRows(src: usize, out: usize, width: i32, height: i32, reach: i32, shares: usize): void {
  const row = <usize>width << 2;
  // Two rows at a time: each sum waits for the one before it in its row.
  let y = 0;
  for (; y + 2 <= height; y += 2, src += 2 * row, out += 2 * row) {
    let sums = f64x2.splat(0);
    for (let i = 0; i < min(reach, width); i++) sums = f64x2.add(sums, pair(src + (<usize>i << 2), row));
    for (let i = 0; i < width; i++) {
      if (i + reach < width) sums = f64x2.add(sums, pair(src + (<usize>(i + reach) << 2), row));
      if (i > reach) sums = f64x2.sub(sums, pair(src + (<usize>(i - reach - 1) << 2), row));
      const mean = f32x4.demote_f64x2_zero(f64x2.mul(sums, v128.load64_splat(shares + (<usize>i << 3))));
      const to = out + (<usize>i << 2);
      v128.store32_lane(to, mean, 0);
      v128.store32_lane(to + row, mean, 1);
    }
  }
  if (y < height) boxRow(src, out, width, reach, shares);
}
// @ts-ignore: decorator
@inline function pair(p: usize, row: usize): v128 {
  return f64x2.promote_low_f32x4(v128.load32_lane(p + row, v128.load32_zero(p), 1));
}
function boxRow(src: usize, out: usize, width: i32, reach: i32, shares: usize): void {
  let sum: f64 = 0;
  for (let i = 0; i < min(reach, width); i++) sum += <f64>load<f32>(src + (<usize>i << 2));
  for (let i = 0; i < width; i++) {
    if (i + reach < width) sum += <f64>load<f32>(src + (<usize>(i + reach) << 2));
    if (i > reach) sum -= <f64>load<f32>(src + (<usize>(i - reach - 1) << 2));
    store<f32>(out + (<usize>i << 2), <f32>(sum * load<f64>(shares + (<usize>i << 3))));
  }
}

/** The same of a column, all columns together: `sums` holds a row of doubles. */
export function boxColumns(src: usize, out: usize, width: i32, height: i32, reach: i32, shares: usize, sums: usize): void {
  const row = <usize>width << 2, whole = row & ~15;
  memory.fill(sums, 0, <usize>width << 3);
  for (let y = 0; y < min(reach, height); y++) addDoubles(sums, src + <usize>y * row, row);
  for (let y = 0; y < height; y++) {
    const ahead = src + <usize>(y + reach) * row, behind = src + <usize>(y - reach - 1) * row;
    const adds = y + reach < height, takes = y > reach;
    const share = load<f64>(shares + (<usize>y << 3)), shares2 = f64x2.splat(share);
    for (let i: usize = 0; i < whole; i += 16) {
      const at = sums + 2 * i;
      let a = v128.load(at), b = v128.load(at + 16);
      if (adds) {
        const v = v128.load(ahead + i);
        a = f64x2.add(a, low(v));
        b = f64x2.add(b, high(v));
      }
      if (takes) {
        const v = v128.load(behind + i);
        a = f64x2.sub(a, low(v));
        b = f64x2.sub(b, high(v));
      }
      v128.store(at, a);
      v128.store(at + 16, b);
      v128.store(out + i, floats(f64x2.mul(a, shares2), f64x2.mul(b, shares2)));
    }
    for (let i = whole; i < row; i += 4) {
      let sum = load<f64>(sums + 2 * i);
      if (adds) sum += <f64>load<f32>(ahead + i);
      if (takes) sum -= <f64>load<f32>(behind + i);
      store<f64>(sums + 2 * i, sum);
      store<f32>(out + i, <f32>(sum * share));
    }
    out += row;
  }
}

// @ts-ignore: decorator
@inline function addDoubles(sums: usize, row: usize, bytes: usize): void {
  for (let i: usize = 0; i < bytes; i += 4) store<f64>(sums + 2 * i, load<f64>(sums + 2 * i) + <f64>load<f32>(row + i));
}

/** A row between two rows of a plane, as pairs of (value, step to the next), the last to itself. columns: any. */
export function pairCells(a: usize, b: usize, part: f64, out: usize, columns: i32): void {
  let value = between(a, b, part);
  for (let x = 0; x < columns; x++, out += 8) {
    if (x + 1 < columns) { a += 4; b += 4; }
    const next = between(a, b, part);
    store<f32>(out, <f32>value);
    store<f32>(out + 4, <f32>(next - value));
    value = next;
  }
}
// @ts-ignore: decorator
@inline function between(a: usize, b: usize, part: f64): f64 {
  const v = <f64>load<f32>(a);
  return v + part * (<f64>load<f32>(b) - v);
}
