import type { Planes } from "../kernels/planes";
import { DEPTH_STEPS, LEAST_DEPTH, LEAST_SHARE, SHARES, type Grain, type MOMENTS } from "../grain/grain";
import type { Weights } from "../mix/weights";

// What the kernels for grain compute, in plain words. Packing and its numbers: ../grain/grain.ts.

type Moments = Record<(typeof MOMENTS)[number], number>;
const CHANNELS = ["red", "green", "blue"] as const;

/** The moments of one pixel made of colours, each with its amount; amounts sum to 1. */
export function momentsOf(colours: readonly { red: number; green: number; blue: number; amount: number }[], light: Weights): Moments {
  const mean = (value: (colour: (typeof colours)[number], y: number) => number) =>
    colours.reduce((sum, colour) => sum + colour.amount * value(colour, lightOf(colour, light)), 0);
  return {
    red: mean(({ red }) => red),
    green: mean(({ green }) => green),
    blue: mean(({ blue }) => blue),
    light2: mean((_, y) => y ** 2),
    light3: mean((_, y) => y ** 3),
    redLight: mean(({ red }, y) => red * y),
    blueLight: mean(({ blue }, y) => blue * y),
  };
}

function lightOf({ red, green, blue }: { red: number; green: number; blue: number }, light: Weights): number {
  return light.red * red + light.green * green + light.blue * blue;
}

/** The two colours that stand for a pixel, and the share of the lighter; undefined where it has no grain. */
export function grainOf(moments: Moments, light: Weights) {
  const { red, green, blue, light2, light3, redLight, blueLight } = moments;
  const mean = lightOf(moments, light);
  const variance = light2 - mean ** 2;
  if (!(mean > 0 && variance > 0)) return undefined;
  const deviation = Math.sqrt(variance);
  const skewness = (light3 - 3 * mean * light2 + 2 * mean ** 3) / deviation ** 3;
  const share = Math.min(Math.max(0.5 * (1 - skewness / Math.sqrt(skewness ** 2 + 4)), LEAST_SHARE), 1 - LEAST_SHARE);
  const down = Math.min(deviation * Math.sqrt(share / (1 - share)), mean);
  if (down < LEAST_DEPTH * mean) return undefined;
  const slope = { red: (redLight - red * mean) / variance, green: 0, blue: (blueLight - blue * mean) / variance };
  slope.green = (1 - light.red * slope.red - light.blue * slope.blue) / light.green;
  const moved = (change: number) => ({
    red: red + change * slope.red,
    green: green + change * slope.green,
    blue: blue + change * slope.blue,
  });
  return { darker: moved(-down), lighter: moved((down * (1 - share)) / share), share };
}

/** One pixel's grain as a word. */
export function packGrain(mean: Planes, grain: Grain, i: number): number {
  const own = grain.share[i]!;
  if (!(own > 0)) return 0;
  const share = Math.min(Math.max(Math.round(SHARES * own), 1), SHARES - 1);
  return CHANNELS.reduce((word, name, c) => {
    const colour = mean[name][i]!;
    const falls = colour > 0 ? 1 - grain.darker[name][i]! / colour : 0;
    // It may rise only as far as the lighter can fall.
    const depth = Math.min(Math.max(falls, -1, -share / (SHARES - share)), 1);
    const step = Math.sign(depth) * Math.round(DEPTH_STEPS * (1 - Math.sqrt(1 - Math.abs(depth))));
    return (word | ((step & 0xff) << (8 * (c + 1)))) >>> 0;
  }, share);
}

/** The other way, for one channel. */
export function unpackChannel(mean: number, word: number, channel: 0 | 1 | 2): { darker: number; lighter: number } {
  const share = (word & 0xff) / SHARES;
  const step = (word << (16 - 8 * channel)) >> 24;
  const falls = mean * Math.sign(step) * (1 - (1 - Math.abs(step) / DEPTH_STEPS) ** 2);
  return { darker: mean - falls, lighter: share === 0 ? mean : mean + (falls * (1 - share)) / share };
}
