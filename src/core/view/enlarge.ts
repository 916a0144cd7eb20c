import type { Size } from "../spatial/areaReduce";

/** Parts of the way from one pixel to the next: both ways together they fit 16 bits and a sign with 8 bits of level. */
export const BETWEEN_PARTS = 128;

/** For each pixel of a line, which of a shorter one lies before it, and how far it is to the next. */
export interface Between {
  first: Int32Array;
  /** Parts of BETWEEN_PARTS; 0 at the last pixel. */
  part: Int32Array;
}

/**
 * Places of `to` pixels between `from` of the same line, middle to middle; those beyond the first and last are theirs. Shape: `to` of each,
 * both counts at least 1.
 */
export function placesBetween(from: number, to: number): Between {
  const places = { first: new Int32Array(to), part: new Int32Array(to) };
  for (let i = 0; i < to; i++) {
    const at = Math.min(Math.max(((i + 0.5) * from) / to - 0.5, 0), from - 1);
    const whole = Math.round(at * BETWEEN_PARTS);
    places.first[i] = Math.floor(whole / BETWEEN_PARTS);
    places.part[i] = whole % BETWEEN_PARTS;
  }
  return places;
}

/**
 * A picture enlarged, linearly between its pixels, rounded. The plain twin of as/enlarge.ts.
 *
 * Shape   4 bytes a pixel, row after row, `from` and `to` pixels; each way at least 1.
 * Units   levels 0–255.
 */
export function enlarged(rgba: Uint8ClampedArray, from: Size, to: Size): Uint8ClampedArray {
  const [across, down] = [placesBetween(from.width, to.width), placesBetween(from.height, to.height)];
  const out = new Uint8ClampedArray(4 * to.width * to.height);
  const level = (x: number, y: number, channel: number) =>
    rgba[4 * (Math.min(y, from.height - 1) * from.width + Math.min(x, from.width - 1)) + channel]!;
  for (let y = 0; y < to.height; y++) {
    const [row, low] = [down.first[y]!, down.part[y]!];
    for (let x = 0; x < to.width; x++) {
      const [column, right] = [across.first[x]!, across.part[x]!];
      for (let c = 0; c < 4; c++) {
        const between = (at: number) => (BETWEEN_PARTS - low) * level(at, row, c) + low * level(at, row + 1, c);
        const sum = (BETWEEN_PARTS - right) * between(column) + right * between(column + 1);
        out[4 * (y * to.width + x) + c] = Math.floor(sum / BETWEEN_PARTS ** 2 + 0.5);
      }
    }
  }
  return out;
}
