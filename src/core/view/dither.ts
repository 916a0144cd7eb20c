import { blueNoiseRanks, TILE } from "./blueNoise";

/** Pixels after which a row of dither begins anew. */
export const DITHER_PERIOD = TILE;

/**
 * Row y of a dither, in levels: offsets of −½…½ that repeat along x and y and average to 0, so that rounding to 8 bits keeps the mean tone.
 * They are blue noise: as fine to the eye as an ordered pattern, without its lines and lattices.
 * Source  docs/decisions/0014-eight-bits.md has both measured.
 */
export function ditherRow(y: number): Float32Array {
  const rows = (made ??= ditherRows());
  return rows[y & (TILE - 1)]!;
}

let made: Float32Array[] | undefined;

function ditherRows(): Float32Array[] {
  const ranks = blueNoiseRanks();
  return Array.from({ length: TILE }, (_, y) =>
    Float32Array.from(ranks.subarray(y * TILE, (y + 1) * TILE), (rank) => (rank + 0.5) / TILE ** 2 - 0.5),
  );
}

/** No dither: steps stay flat. */
export const NO_DITHER = new Float32Array(DITHER_PERIOD);

/** A row of noise still to be made: see noiseRow. */
export interface Noise {
  y: number;
  /** In levels. */
  amplitude: number;
  /** Offsets of red, green and blue besides, where a colour is written: rows that begin anew after WAVES_PERIOD. */
  waves?: readonly Float32Array[] | undefined;
}

/**
 * Row y of a noise that has all frequencies in it, in levels: triangular, of −amplitude…amplitude, the same for a place whenever it is
 * asked for. A JPEG coder keeps of a dither only what is coarse, which this has and blue noise has not.
 *
 * Shape   a value for each of `width` pixels. The plain twin of the kernel of that name.
 */
export function noiseRow({ y, amplitude }: Noise, width: number): Float32Array {
  const row = new Float32Array(width);
  const line = noiseLine(y);
  for (let x = 0; x < width; x++) {
    let h = Math.imul((x + 0x7f4a7c15) ^ line, 0x85ebca6b);
    h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
    h ^= h >>> 16;
    row[x] = (Math.fround(amplitude) * ((h >>> 16) - (h & 0xffff))) / 65536;
  }
  return row;
}

/** What a row of noise is made from. */
export function noiseLine(y: number): number {
  return Math.imul(y + 1, 0x9e3779b1);
}
