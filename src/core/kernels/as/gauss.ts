// A plane weighted around each of its places, the same to either side. Weights are floats from the middle outwards, reach + 1 of them;
// shares, a float a place, are one over how much of all weights lies inside. Widths and heights: any. What a place gets does not depend on
// how far the plane goes on beyond the reach.

/** Along rows. `padded` has room for width + 2 · reach floats. */
export function weighRows(src: usize, out: usize, width: i32, height: i32, reach: i32, weights: usize, shares: usize, padded: usize): void {
  const row = <usize>width << 2, before = <usize>reach << 2;
  memory.fill(padded, 0, before);
  memory.fill(padded + before + row, 0, before);
  for (let y = 0; y < height; y++, src += row, out += row) {
    memory.copy(padded + before, src, row);
    let x: usize = 0;
    for (; x + 16 <= row; x += 16) v128.store(out + x, weighed(padded + before + x, 4, reach, reach, weights, v128.load(shares + x)));
    for (; x < row; x += 4) store<f32>(out + x, weighedOne(padded + before + x, 4, reach, reach, weights, load<f32>(shares + x)));
  }
}

/** Along columns. */
export function weighColumns(src: usize, out: usize, width: i32, height: i32, reach: i32, weights: usize, shares: usize): void {
  const row = <usize>width << 2;
  for (let y = 0; y < height; y++, src += row, out += row) {
    const above = min(reach, y), below = min(reach, height - 1 - y), share = load<f32>(shares + (<usize>y << 2));
    const all = f32x4.splat(share);
    let x: usize = 0;
    for (; x + 16 <= row; x += 16) v128.store(out + x, weighed(src + x, row, above, below, weights, all));
    for (; x < row; x += 4) store<f32>(out + x, weighedOne(src + x, row, above, below, weights, share));
  }
}

// @ts-ignore: decorator
@inline function weighed(at: usize, step: usize, before: i32, after: i32, weights: usize, share: v128): v128 {
  let sum = f32x4.mul(v128.load32_splat(weights), v128.load(at));
  const both = min(before, after);
  let k = 1, lower = at - step, upper = at + step;
  for (; k <= both; k++, lower -= step, upper += step)
    sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weights + (<usize>k << 2)), f32x4.add(v128.load(lower), v128.load(upper))));
  for (; k <= before; k++, lower -= step) sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weights + (<usize>k << 2)), v128.load(lower)));
  for (; k <= after; k++, upper += step) sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weights + (<usize>k << 2)), v128.load(upper)));
  return f32x4.mul(sum, share);
}

// @ts-ignore: decorator
@inline function weighedOne(at: usize, step: usize, before: i32, after: i32, weights: usize, share: f32): f32 {
  let sum: f32 = load<f32>(weights) * load<f32>(at);
  const both = min(before, after);
  let k = 1, lower = at - step, upper = at + step;
  for (; k <= both; k++, lower -= step, upper += step) sum += load<f32>(weights + (<usize>k << 2)) * (load<f32>(lower) + load<f32>(upper));
  for (; k <= before; k++, lower -= step) sum += load<f32>(weights + (<usize>k << 2)) * load<f32>(lower);
  for (; k <= after; k++, upper += step) sum += load<f32>(weights + (<usize>k << 2)) * load<f32>(upper);
  return sum * share;
}
