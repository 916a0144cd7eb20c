// The surroundings of tones in slices: cells one after the other, each with a float for every slice, CELL_FLOATS of them. Sums are kept in
// doubles.
import { floats, high, low } from "./doubles";

/** Bytes of a cell, and of its (value, step to the next) pairs. */
const CELL: usize = 48;
const PAIRS: usize = 96;

const MAGIC: f32 = 8388608.0;
const MANTISSA: i32 = 0x7fffff;

/**
 * Shares tones between the two slices they lie between, in the cells of one row; columns say where those begin, in bytes. width, height:
 * any.
 */
export function splatSlices(tone: usize, width: i32, height: i32, columns: usize, sums: usize, counts: usize, share: f64, slices: i32): void {
  const top = <f64>(slices - 1);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const t = min<f64>(max<f64>(<f64>load<f32>(tone), 0), 1);
      const at = t * top;
      const lower = min<i32>(<i32>at, slices - 2);
      const upper = (at - <f64>lower) * share;
      const place = <usize>load<i32>(columns + (<usize>x << 2)) + (<usize>lower << 2);
      const both = f64x2.replace_lane(f64x2.splat(share - upper), 1, upper);
      addPair(counts + place, both);
      addPair(sums + place, f64x2.mul(both, f64x2.splat(t)));
      tone += 4;
    }
  }
}

/** To two floats that lie together. */
// @ts-ignore: decorator
@inline function addPair(at: usize, both: v128): void {
  v128.store64_lane(at, f32x4.demote_f64x2_zero(f64x2.add(low(v128.load64_zero(at)), both)), 0);
}

/**
 * The sum of 2 · reach + 1 cells of a row times the share of each, a double. The sums of a cell run side by side, for each must wait for
 * its last.
 */
export function boxAcross(src: usize, out: usize, width: i32, height: i32, reach: i32, shares: usize): void {
  const ahead = <usize>reach * CELL, behind = <usize>(reach + 1) * CELL;
  for (let y = 0; y < height; y++) {
    let p = src + <usize>y * <usize>width * CELL, q = out + <usize>y * <usize>width * CELL;
    let a = f64x2.splat(0), b = f64x2.splat(0), c = f64x2.splat(0), d = f64x2.splat(0), e = f64x2.splat(0), f = f64x2.splat(0);
    for (let i = 0, at = p; i < min(reach, width); i++, at += CELL) {
      const u = v128.load(at), v = v128.load(at, 16), w = v128.load(at, 32);
      a = f64x2.add(a, low(u)); b = f64x2.add(b, high(u));
      c = f64x2.add(c, low(v)); d = f64x2.add(d, high(v));
      e = f64x2.add(e, low(w)); f = f64x2.add(f, high(w));
    }
    for (let i = 0; i < width; i++, p += CELL, q += CELL) {
      if (i + reach < width) {
        const at = p + ahead;
        const u = v128.load(at), v = v128.load(at, 16), w = v128.load(at, 32);
        a = f64x2.add(a, low(u)); b = f64x2.add(b, high(u));
        c = f64x2.add(c, low(v)); d = f64x2.add(d, high(v));
        e = f64x2.add(e, low(w)); f = f64x2.add(f, high(w));
      }
      if (i > reach) {
        const at = p - behind;
        const u = v128.load(at), v = v128.load(at, 16), w = v128.load(at, 32);
        a = f64x2.sub(a, low(u)); b = f64x2.sub(b, high(u));
        c = f64x2.sub(c, low(v)); d = f64x2.sub(d, high(v));
        e = f64x2.sub(e, low(w)); f = f64x2.sub(f, high(w));
      }
      const share = v128.load64_splat(shares + (<usize>i << 3));
      v128.store(q, floats(f64x2.mul(a, share), f64x2.mul(b, share)));
      v128.store(q, floats(f64x2.mul(c, share), f64x2.mul(d, share)), 16);
      v128.store(q, floats(f64x2.mul(e, share), f64x2.mul(f, share)), 32);
    }
  }
}

/**
 * One row of the same down columns: `next` comes into the sums, doubles, `last` goes out of them, unless it is 0, and the sums times a
 * share are a row. n counts floats.
 */
export function boxDown(next: usize, last: usize, sums: usize, out: usize, n: i32, share: f64): void {
  const nothing = f32x4.splat(0), by = f64x2.splat(share);
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 16) {
    const at = sums + 2 * i, more = next ? v128.load(next + i) : nothing, less = last ? v128.load(last + i) : nothing;
    const a = f64x2.sub(f64x2.add(v128.load(at), low(more)), low(less)), b = f64x2.sub(f64x2.add(v128.load(at, 16), high(more)), high(less));
    v128.store(at, a);
    v128.store(at, b, 16);
    v128.store(out + i, floats(f64x2.mul(a, by), f64x2.mul(b, by)));
  }
}

/** Sums become means: (sum + own) ∕ (count + itself), own and itself doubles, own one for each float of a cell. */
export function meanSlices(sums: usize, counts: usize, cells: i32, own: usize, itself: f64): void {
  const more = f64x2.splat(itself);
  for (let cell = 0; cell < cells; cell++) {
    for (let part: usize = 0; part < CELL; part += 16) {
      const sum = v128.load(sums + part), count = v128.load(counts + part);
      const a = f64x2.div(f64x2.add(low(sum), v128.load(own + 2 * part)), f64x2.add(low(count), more));
      const b = f64x2.div(f64x2.add(high(sum), v128.load(own + 2 * part + 16)), f64x2.add(high(count), more));
      v128.store(sums + part, floats(a, b));
    }
    sums += CELL; counts += CELL;
  }
}

/** A row between two rows of cells, as pairs of (value, step to the next cell). */
export function pairRows(a: usize, b: usize, part: f64, out: usize, columns: i32): void {
  const share = f64x2.splat(part);
  for (let lane: usize = 0; lane < CELL; lane += 8) {
    let p = a + lane, q = b + lane, to = out + 2 * lane;
    let value = between(p, q, share);
    for (let x = 0; x < columns; x++, to += PAIRS) {
      if (x + 1 < columns) { p += CELL; q += CELL; }
      const next = between(p, q, share);
      const v = f32x4.demote_f64x2_zero(value), d = f32x4.demote_f64x2_zero(f64x2.sub(next, value));
      v128.store(to, v128.shuffle<f32>(v, d, 0, 4, 1, 5));
      value = next;
    }
  }
}
// @ts-ignore: decorator
@inline function between(p: usize, q: usize, share: v128): v128 {
  const a = f64x2.promote_low_f32x4(v128.load64_zero(p)), b = f64x2.promote_low_f32x4(v128.load64_zero(q));
  return f64x2.add(a, f64x2.mul(share, f64x2.sub(b, a)));
}

/**
 * One row of tones read between the cells of a row of pairs and between slices: value i at `from` + i · `step` cells and at its own tone.
 */
export function sampleSlices(pairs: usize, tone: usize, out: usize, n: i32, from: f32, step: f32, last: i32, slices: i32): void {
  const zero = f32x4.splat(0), top = f32x4.splat(<f32>last), magic = f32x4.splat(MAGIC), mantissa = i32x4.splat(MANTISSA);
  const highest = f32x4.splat(<f32>(slices - 1)), lastLower = f32x4.splat(<f32>(slices - 2));
  for (let i: i32 = 0; i < n; i += 4) {
    const slice = f32x4.pmin(f32x4.pmax(f32x4.mul(v128.load(tone), highest), zero), highest);
    const lower = f32x4.pmin(f32x4.floor(slice), lastLower);
    const first = f32x4.add(f32x4.splat(<f32>i), f32x4(0, 1, 2, 3));
    const x = f32x4.pmin(f32x4.pmax(f32x4.add(f32x4.splat(from), f32x4.mul(first, f32x4.splat(step))), zero), top);
    const whole = f32x4.floor(x);
    const f = f32x4.sub(x, whole);
    const cell = i32x4.mul(v128.and(f32x4.add(whole, magic), mantissa), i32x4.splat(<i32>PAIRS));
    const at = i32x4.add(cell, i32x4.shl(v128.and(f32x4.add(lower, magic), mantissa), 3));
    // Of each pixel the pairs of two slices lie together: turned into rows of values and steps.
    const p = v128.load(pairs + <usize>i32x4.extract_lane(at, 0)), q = v128.load(pairs + <usize>i32x4.extract_lane(at, 1));
    const r = v128.load(pairs + <usize>i32x4.extract_lane(at, 2)), s = v128.load(pairs + <usize>i32x4.extract_lane(at, 3));
    const pq = v128.shuffle<f32>(p, q, 0, 4, 1, 5), rs = v128.shuffle<f32>(r, s, 0, 4, 1, 5);
    const pq2 = v128.shuffle<f32>(p, q, 2, 6, 3, 7), rs2 = v128.shuffle<f32>(r, s, 2, 6, 3, 7);
    const a = f32x4.add(v128.shuffle<f32>(pq, rs, 0, 1, 4, 5), f32x4.mul(v128.shuffle<f32>(pq, rs, 2, 3, 6, 7), f));
    const b = f32x4.add(v128.shuffle<f32>(pq2, rs2, 0, 1, 4, 5), f32x4.mul(v128.shuffle<f32>(pq2, rs2, 2, 3, 6, 7), f));
    v128.store(out, f32x4.add(a, f32x4.mul(f32x4.sub(slice, lower), f32x4.sub(b, a))));
    tone += 16; out += 16;
  }
}
