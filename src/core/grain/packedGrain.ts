import type { Planes } from "../kernels/reference";
import type { Grain } from "./grain";

// Grain as it is stored beside a level, in four bytes a pixel: the share of the lighter, and how far each channel falls from the mean to
// the darker, as a part of the mean. All 0 where there is none. Colours are those of the source's own primaries, so that none is below 0.

const CHANNELS = ["red", "green", "blue"] as const;
const SHARES = 256;
const STEPS = 127;

/** Grain of pixels of these means. */
export function packGrain(mean: Planes, grain: Grain | undefined): Uint32Array<ArrayBuffer> {
  const packed = new Uint32Array(mean.red.length);
  if (!grain) return packed;
  for (let i = 0; i < packed.length; i++) {
    if (grain.share[i] === 0) continue;
    const share = Math.min(Math.max(Math.round(SHARES * grain.share[i]!), 1), SHARES - 1);
    let word = share;
    CHANNELS.forEach((name, c) => {
      const colour = mean[name][i]!;
      const falls = colour > 0 ? 1 - grain.darker[name][i]! / colour : 0;
      // It may rise only as far as the lighter can fall.
      const depth = Math.min(Math.max(falls, -1, -share / (SHARES - share)), 1);
      word |= (stepOf(depth) & 0xff) << (8 * (c + 1));
    });
    packed[i] = word;
  }
  return packed;
}

/** The other way; undefined where no pixel has any. */
export function unpackGrain(mean: Planes, packed: Uint32Array): Grain | undefined {
  if (packed.every((word) => word === 0)) return undefined;
  const copy = (): Planes => ({ red: mean.red.slice(), green: mean.green.slice(), blue: mean.blue.slice() });
  const grain: Grain = { darker: copy(), lighter: copy(), share: new Float32Array(packed.length) };
  for (let i = 0; i < packed.length; i++) {
    const word = packed[i]!;
    if (word === 0) continue;
    const share = (word & 0xff) / SHARES;
    grain.share[i] = share;
    CHANNELS.forEach((name, c) => {
      const falls = mean[name][i]! * DEPTHS[(word >>> (8 * (c + 1))) & 0xff]!;
      grain.darker[name][i] = mean[name][i]! - falls;
      grain.lighter[name][i] = mean[name][i]! + (falls * (1 - share)) / share;
    });
  }
  return grain;
}

/** Finer towards 1, where what is left of the light is a small part. */
function stepOf(depth: number): number {
  return Math.sign(depth) * Math.round(STEPS * (1 - Math.sqrt(1 - Math.abs(depth))));
}

/** Depths by their byte. */
const DEPTHS = Float64Array.from({ length: 256 }, (_, byte) => {
  const step = byte < 128 ? byte : byte - 256;
  return Math.sign(step) * (1 - (1 - Math.min(Math.abs(step) / STEPS, 1)) ** 2);
});
