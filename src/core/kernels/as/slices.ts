// The surroundings of tones in slices: cells one after the other, each with a float for every slice, CELL_FLOATS of them. Sums are kept in doubles.
import { floats, high, low } from "./doubles";

/** Bytes of a cell, of its (value, step to the next) pairs, and of its sums in doubles. */
const CELL: usize = 48;
const PAIRS: usize = 96;
const SUMS: usize = 96;

const MAGIC: f32 = 8388608.0;
const MANTISSA: i32 = 0x7fffff;

/** Shares tones between the two slices they lie between, in their cells; columns and rows say where those begin, in bytes. n: any. */
export function splatSlices(tone: usize, width: i32, height: i32, columns: usize, rows: usize, sums: usize, counts: usize, share: f64, slices: i32): void {
  const top = <f64>(slices - 1);
  for (let y = 0; y < height; y++) {
    const row = <usize>load<i32>(rows + (<usize>y << 2));
    for (let x = 0; x < width; x++) {
      const t = min<f64>(max<f64>(<f64>load<f32>(tone), 0), 1);
      const at = t * top;
      const lower = min<i32>(<i32>at, slices - 2);
      const upper = (at - <f64>lower) * share;
      const place = row + <usize>load<i32>(columns + (<usize>x << 2)) + (<usize>lower << 2);
      add(counts + place, share - upper);
      add(sums + place, (share - upper) * t);
      add(counts + place + 4, upper);
      add(sums + place + 4, upper * t);
      tone += 4;
    }
  }
}

// @ts-ignore: decorator
@inline function add(at: usize, value: f64): void {
  store<f32>(at, <f32>(<f64>load<f32>(at) + value));
}

/** The sum of 2 · reach + 1 cells of a row times the share of each, a double. */
export function boxAcross(src: usize, out: usize, width: i32, height: i32, reach: i32, shares: usize): void {
  const ahead = <usize>reach * CELL, behind = <usize>(reach + 1) * CELL;
  for (let y = 0; y < height; y++) {
    const row = <usize>y * <usize>width * CELL;
    for (let part: usize = 0; part < CELL; part += 16) {
      let p = src + row + part, q = out + row + part;
      let a = f64x2.splat(0), b = f64x2.splat(0);
      for (let i = 0, at = p; i < min(reach, width); i++, at += CELL) {
        a = f64x2.add(a, low(v128.load(at)));
        b = f64x2.add(b, high(v128.load(at)));
      }
      for (let i = 0; i < width; i++, p += CELL, q += CELL) {
        if (i + reach < width) {
          a = f64x2.add(a, low(v128.load(p + ahead)));
          b = f64x2.add(b, high(v128.load(p + ahead)));
        }
        if (i > reach) {
          a = f64x2.sub(a, low(v128.load(p - behind)));
          b = f64x2.sub(b, high(v128.load(p - behind)));
        }
        const share = v128.load64_splat(shares + (<usize>i << 3));
        v128.store(q, floats(f64x2.mul(a, share), f64x2.mul(b, share)));
      }
    }
  }
}

/** The same of a column, all columns together: `sums` holds a row of doubles. */
export function boxDown(src: usize, out: usize, width: i32, height: i32, reach: i32, shares: usize, sums: usize): void {
  const row = <usize>width * CELL;
  memory.fill(sums, 0, <usize>width * SUMS);
  for (let y = 0; y < min(reach, height); y++) sumRow(src + <usize>y * row, sums, row);
  for (let y = 0; y < height; y++) {
    if (y + reach < height) sumRow(src + <usize>(y + reach) * row, sums, row);
    if (y > reach) takeRow(src + <usize>(y - reach - 1) * row, sums, row);
    const share = v128.load64_splat(shares + (<usize>y << 3));
    const q = out + <usize>y * row;
    for (let i: usize = 0; i < row; i += 16)
      v128.store(q + i, floats(f64x2.mul(v128.load(sums + 2 * i), share), f64x2.mul(v128.load(sums + 2 * i + 16), share)));
  }
}

// @ts-ignore: decorator
@inline function sumRow(p: usize, sums: usize, row: usize): void {
  for (let i: usize = 0; i < row; i += 16) {
    const v = v128.load(p + i), at = sums + 2 * i;
    v128.store(at, f64x2.add(v128.load(at), low(v)));
    v128.store(at + 16, f64x2.add(v128.load(at + 16), high(v)));
  }
}
// @ts-ignore: decorator
@inline function takeRow(p: usize, sums: usize, row: usize): void {
  for (let i: usize = 0; i < row; i += 16) {
    const v = v128.load(p + i), at = sums + 2 * i;
    v128.store(at, f64x2.sub(v128.load(at), low(v)));
    v128.store(at + 16, f64x2.sub(v128.load(at + 16), high(v)));
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

/** One row of tones read between the cells of a row of pairs and between slices: value i at `from` + i · `step` cells and at its own tone. */
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
