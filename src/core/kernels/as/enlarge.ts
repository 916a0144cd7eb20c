// A picture of 4 bytes a pixel enlarged between its pixels, and what one as large shows beside that. All in whole numbers, parts of 128
// each way: view/enlarge.ts.

/** Between two rows: whole numbers of 16 bits. n bytes, a multiple of 16. */
export function betweenRows(upper: usize, lower: usize, out: usize, n: i32, part: i32): void {
  const below = i16x8.splat(<i16>part), above = i16x8.splat(<i16>(128 - part));
  for (let i: usize = 0, end = <usize>n; i < end; i += 16, out += 32) {
    const u = v128.load(upper + i), l = v128.load(lower + i);
    v128.store(out, i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(u), above), i16x8.mul(i16x8.extend_low_i8x16_u(l), below)));
    v128.store(out + 16, i16x8.add(i16x8.mul(i16x8.extend_high_i8x16_u(u), above), i16x8.mul(i16x8.extend_high_i8x16_u(l), below)));
  }
}

/** Two pixels along such a row. columns: 8 bytes a pixel, where its left neighbour lies in the row and both their parts. */
// @ts-ignore: decorator
@inline function twoBetween(row: usize, columns: usize): v128 {
  return i16x8.narrow_i32x4_s(oneBetween(row, columns), oneBetween(row, columns + 8));
}
// @ts-ignore: decorator
@inline function oneBetween(row: usize, column: usize): v128 {
  const both = v128.load(row + <usize>load<u32>(column));
  const paired = v128.shuffle<u8>(both, both, 0, 1, 8, 9, 2, 3, 10, 11, 4, 5, 12, 13, 6, 7, 14, 15);
  const sum = i32x4.dot_i16x8_s(paired, v128.load32_splat(column + 4));
  return i32x4.shr_s(i32x4.add(sum, i32x4.splat(8192)), 14);
}

/** What a row of a frame shows beside the enlarged one: 16 bits a channel. n pixels, a multiple of 2. */
export function besideEnlarged(row: usize, columns: usize, frame: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 8)
    v128.store(out + (i << 1), i16x8.sub(v128.load_ext<u8>(frame + i), twoBetween(row, columns + (i << 1))));
}

/** The enlarged row with what lies beside it. */
export function enlargedWith(row: usize, columns: usize, detail: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>n << 2; i < end; i += 8) {
    const sum = i16x8.add(v128.load(detail + (i << 1)), twoBetween(row, columns + (i << 1)));
    v128.store64_lane(out + i, i8x16.narrow_i16x8_u(sum, sum), 0);
  }
}
