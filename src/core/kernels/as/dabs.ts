// What hard dabs of one stroke leave of PLACES × PLACES places to a pixel, gathered over a strip of rows, then laid row after row.
// For each place of a strip a double in `steps` (how many dabs more act fully on it than on the one before it in its line) and
// a float in `left` (what remains of it besides, where dabs fall off), pixel after pixel; for each pixel a byte in `touched`;
// for each row its first and its last touched pixel in `ends`.

/** The host's: the compiler's own keeps tables in memory, which is ours. */
// @ts-ignore: decorator
@external("env", "exp") declare function exp(x: f64): f64;

const PLACES: i32 = 4;
const ALL: i32 = 16;
/**
 * Of places that differ by more than this in the mean of squares each is held: ALIKE of ../../brush/strokePlane.ts, squared, for ALL of
 * them.
 */
const ALIKE: f64 = 0.0016;
/** Lines that leave as much of a place, but for this, are one. */
const EVEN: f64 = 1e-6;
/** As ../../brush/falloff.ts. */
const FALLOFF_STEPS: f64 = 1024;
/** Of the table of what 0, 1, 2, … dabs leave. */
const MOST_WHOLE: i32 = 256;

/** Which of all places of a strip one of a line is. */
// @ts-ignore: decorator
@inline function placeAt(stride: i32, line: i32, place: i32): usize {
  return <usize>(ALL * ((line >> 2) * stride + (place >> 2)) + PLACES * (line & 3) + (place & 3));
}

// @ts-ignore: decorator
@inline function touch(touched: usize, ends: usize, stride: i32, line: i32, first: i32, last: i32): void {
  const row = line >> 2;
  const a = first >> 2;
  const b = last >> 2;
  const begin = touched + <usize>(row * stride);
  for (let x = a; x <= b; x++) store<u8>(begin + <usize>x, 1);
  const end = ends + (<usize>row << 3);
  if (a < load<i32>(end)) store<i32>(end, a);
  if (b > load<i32>(end, 4)) store<i32>(end, b, 4);
}

/**
 * Adds what a dab leaves of lines of places, first to last. Its middle, and `full`, `all` and `edge`, in places: how far it acts fully, how
 * far at all, and where it ends if it does so within a place (isStep). `step`: for how many dabs of the stroke it counts. end: the last
 * place of a line.
 */
export function dabLines(
  steps: usize, left: usize, touched: usize, ends: usize, stride: i32, end: i32, first: i32, last: i32,
  x: f64, y: f64, toLeft: f64, toRight: f64, up: f64, down: f64, full: f64, all: f64, edge: f64, isStep: i32, flow: f64, step: f64, table: usize,
): void {
  for (let line = first; line <= last; line++) {
    const v = (<f64>line - y) * (<f64>line < y ? up : down);
    // Not 0: towards a border that it goes on beyond it is divided by 0.
    const outer = Math.sqrt(Math.max(all * all - v * v, f64.MIN_NORMAL_VALUE));
    const from = <i32>Math.min(Math.max(Math.ceil(x - outer / toLeft), 0), <f64>end + 1);
    const to = <i32>Math.max(Math.min(Math.floor(x + outer / toRight), <f64>end), -1);
    if (from > to) continue;
    let fullFrom = to + 1;
    let fullTo = to;
    if (full > Math.abs(v)) {
      const inner = Math.sqrt(full * full - v * v);
      fullFrom = <i32>Math.min(Math.max(Math.ceil(x - inner / toLeft), 0), <f64>end + 1);
      fullTo = <i32>Math.max(Math.min(Math.floor(x + inner / toRight), <f64>end), -1);
    }
    const before = fullFrom > fullTo ? to : fullFrom - 1;
    if (from <= before) weaken(left, touched, ends, stride, line, from, before, v * v, x, toLeft, toRight, all, edge, isStep, flow, table);
    if (fullFrom > fullTo) continue;
    const a = steps + (placeAt(stride, line, fullFrom) << 3);
    const b = steps + (placeAt(stride, line, fullTo + 1) << 3);
    store<f64>(a, load<f64>(a) + step);
    store<f64>(b, load<f64>(b) - step);
    touch(touched, ends, stride, line, fullFrom, fullFrom);
    touch(touched, ends, stride, line, fullTo + 1, fullTo + 1);
    if (fullTo < to) weaken(left, touched, ends, stride, line, fullTo + 1, to, v * v, x, toLeft, toRight, all, edge, isStep, flow, table);
  }
}

/** Weakens places of a line, `v2` the square of its distance from the dab's middle, where the dab falls off. */
// @ts-ignore: decorator
@inline function weaken(
  left: usize, touched: usize, ends: usize, stride: i32, line: i32, from: i32, to: i32, v2: f64,
  x: f64, toLeft: f64, toRight: f64, all: f64, edge: f64, isStep: i32, flow: f64, table: usize,
): void {
  touch(touched, ends, stride, line, from, to);
  for (let k = from; k <= to; k++) {
    const u = (<f64>k - x) * (<f64>k < x ? toLeft : toRight);
    const square = u * u + v2;
    let share: f64 = 0;
    if (isStep) share = Math.min(Math.max(edge - Math.sqrt(square) + 0.5, 0), 1);
    else if (square < all * all) {
      const step = (square / (all * all)) * FALLOFF_STEPS;
      const whole = <i32>step;
      const pair = table + (<usize>whole << 3);
      share = <f64>load<f32>(pair) + <f64>load<f32>(pair, 4) * (step - <f64>whole);
    }
    const at = left + (placeAt(stride, line, k) << 2);
    store<f32>(at, <f32>(<f64>load<f32>(at) * (1 - flow * share)));
  }
}

/** What so many dabs leave, `one` the logarithm of what one does. */
// @ts-ignore: decorator
@inline function powerOf(powers: usize, one: f64, count: f64): f64 {
  const whole = <i32>count;
  return <f64>whole == count && whole >= 0 && whole < MOST_WHOLE ? load<f64>(powers + (<usize>whole << 3)) : exp(one * count);
}

/**
 * Lays on a stretch of a row, n pixels, what was gathered of it, and clears that; the pointers are to its first. Of the last pixels only
 * `inside` are in the picture. Pixels whose places are held, or come to differ, stay: how many is returned, and in `list` for each its
 * number and the shares of its places, 17 doubles. finer: other than 0 for pixels that are held, or no pointer. lines: room for twice
 * PLACES doubles.
 */
export function dabRow(
  steps: usize, left: usize, touched: usize, n: i32, inside: i32, values: usize, finer: usize,
  goal: f64, one: f64, powers: usize, lines: usize, list: usize,
): i32 {
  let share: f64 = 0;
  let isEven = true;
  let found = 0;
  const remains = lines + (PLACES << 3);
  for (let v = 0; v < PLACES; v++) {
    store<f64>(lines + (<usize>v << 3), 0);
    store<f64>(remains + (<usize>v << 3), 1);
  }
  for (let pixel = 0; pixel < n; pixel++) {
    const isTouched = load<u8>(touched + <usize>pixel) != 0;
    const value = values + (<usize>pixel << 2);
    const isHeld = finer != 0 && pixel < inside && load<i32>(finer + (<usize>pixel << 2)) != 0;
    if (!isTouched && isEven && !isHeld) {
      const was = <f64>load<f32>(value);
      store<f32>(value, <f32>(was + (goal - was) * share));
      continue;
    }
    const shares = list + 8 * <usize>((ALL + 1) * found + 1);
    if (isTouched) {
      store<u8>(touched + <usize>pixel, 0);
      takePixel(steps + (<usize>pixel << 7), left + (<usize>pixel << 6), lines, one, powers, shares);
      let sum: f64 = 0;
      let least: f64 = 2;
      let most: f64 = 0;
      for (let v = 0; v < PLACES; v++) {
        const remain = load<f64>(remains + (<usize>v << 3));
        sum += remain;
        least = Math.min(least, remain);
        most = Math.max(most, remain);
      }
      share = 1 - sum / PLACES;
      isEven = most - least < EVEN;
    } else if (isEven) for (let i = 0; i < ALL; i++) store<f64>(shares + (<usize>i << 3), share);
    else for (let i = 0; i < ALL; i++) store<f64>(shares + (<usize>i << 3), 1 - load<f64>(remains + (<usize>(i >> 2) << 3)));
    if (pixel >= inside) continue;
    if (isHeld || !layMean(value, goal, shares)) {
      store<f64>(shares - 8, pixel);
      found++;
    }
  }
  return found;
}

/** Takes the places of a pixel out of what was gathered. */
// @ts-ignore: decorator
@inline function takePixel(steps: usize, left: usize, lines: usize, one: f64, powers: usize, shares: usize): void {
  for (let v = 0; v < PLACES; v++) {
    const line = lines + (<usize>v << 3);
    let sum = load<f64>(line);
    let remain = load<f64>(line, PLACES << 3);
    for (let u = 0; u < PLACES; u++) {
      const i = <usize>(PLACES * v + u);
      const step = load<f64>(steps + (i << 3));
      if (step != 0) {
        sum += step;
        remain = powerOf(powers, one, sum);
        store<f64>(steps + (i << 3), 0);
      }
      store<f64>(shares + (i << 3), 1 - remain * <f64>load<f32>(left + (i << 2)));
      store<f32>(left + (i << 2), 1);
    }
    store<f64>(line, sum);
    store<f64>(line, remain, PLACES << 3);
  }
}

/** Lays on a pixel the mean of its places' shares, if they stay alike. */
// @ts-ignore: decorator
@inline function layMean(value: usize, goal: f64, shares: usize): bool {
  let sum: f64 = 0;
  let squares: f64 = 0;
  for (let i = 0; i < ALL; i++) {
    const share = load<f64>(shares + (<usize>i << 3));
    sum += share;
    squares += share * share;
  }
  const was = <f64>load<f32>(value);
  const far = goal - was;
  const all = far * sum;
  if (far * far * squares - (all * all) / ALL > ALIKE) return false;
  store<f32>(value, <f32>(was + all / ALL));
  return true;
}

/**
 * Brings values of a plane nearer to a goal by a dab whose every pixel is told by its middle: by flow and the table of its falloff, read at
 * `toStep` times the square of the distance from (x, y), in pixels from the first. Rows of `width` pixels, from and to included.
 */
export function layDab(
  values: usize, width: i32, from: i32, to: i32,
  x: f64, y: f64, reach: f64, left: f64, right: f64, up: f64, down: f64, toStep: f64, flow: f64, goal: f64, table: usize,
): void {
  for (let row = from; row <= to; row++) {
    const v = (<f64>row - y) * (<f64>row < y ? up : down);
    const half = Math.sqrt(Math.max(reach * reach - v * v, 0));
    const first = left > 0 ? <i32>Math.min(Math.max(Math.ceil(x - half / left), 0), <f64>width) : 0;
    const end = right > 0 ? <i32>Math.max(Math.min(Math.floor(x + half / right), <f64>(width - 1)), -1) : width - 1;
    const middle = <i32>Math.min(Math.max(Math.ceil(x), <f64>first), <f64>(end + 1));
    const begin = values + (<usize>(row * width) << 2);
    layAlong(begin, first, middle - 1, x, left, v * v, toStep, flow, goal, table);
    layAlong(begin, middle, end, x, right, v * v, toStep, flow, goal, table);
  }
}

/** Adding 2^52 to a double below it leaves its integer part in the low bits. */
const MAGIC: f64 = 4503599627370496.0;

// @ts-ignore: decorator
@inline function layAlong(
  begin: usize, first: i32, last: i32, x: f64, counts: f64, v2: f64, toStep: f64, flow: f64, goal: f64, table: usize,
): void {
  const middle = f64x2.splat(x);
  const count = f64x2.splat(counts);
  const square = f64x2.splat(v2);
  const scale = f64x2.splat(toStep);
  const by = f64x2.splat(flow);
  const aim = f64x2.splat(goal);
  let columns = f64x2.replace_lane(f64x2.splat(<f64>first), 1, <f64>(first + 1));
  for (let column = first; column <= last; column += 2) {
    const u = f64x2.mul(f64x2.sub(columns, middle), count);
    columns = f64x2.add(columns, f64x2.splat(2));
    const step = f64x2.mul(f64x2.add(f64x2.mul(u, u), square), scale);
    const whole = f64x2.floor(step);
    const bits = f64x2.add(whole, f64x2.splat(MAGIC));
    const at = begin + (<usize>column << 2);
    const isPair = column < last;
    const one = v128.load64_zero(table + (<usize>(<i32>i64x2.extract_lane(bits, 0)) << 3));
    const pairs = isPair ? v128.load64_lane(table + (<usize>(<i32>i64x2.extract_lane(bits, 1)) << 3), one, 1) : one;
    const values = f64x2.promote_low_f32x4(v128.shuffle<f32>(pairs, pairs, 0, 2, 0, 2));
    const rises = f64x2.promote_low_f32x4(v128.shuffle<f32>(pairs, pairs, 1, 3, 1, 3));
    const share = f64x2.mul(by, f64x2.add(values, f64x2.mul(rises, f64x2.sub(step, whole))));
    const was = f64x2.promote_low_f32x4(isPair ? v128.load64_zero(at) : v128.load32_zero(at));
    const laid = f32x4.demote_f64x2_zero(f64x2.add(was, f64x2.mul(f64x2.sub(aim, was), share)));
    if (isPair) v128.store64_lane(at, laid, 0);
    else v128.store32_lane(at, laid, 0);
  }
}
