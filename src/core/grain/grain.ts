import type { Planes } from "../kernels/reference";
import type { Weights } from "../mix/weights";
import { areaReduceRows, type Size } from "../spatial/areaReduce";

/**
 * What a reduced pixel holds besides its mean: two colours that stand for all it was made of, one darker, one lighter, each with its
 * share. Their luminances are the points of a two-point Gauss quadrature (Golub & Welsch 1969) of the light inside the pixel: mean,
 * variance and skewness are kept, so the mean of any cubic of them is exact, and so is any curve over an edge between two colours.
 * The colours lie on the line through the mean that fits how colour goes with light there (least squares).
 *
 * Units  linear light; shares 0–1.
 */
export interface Grain {
  darker: Planes;
  lighter: Planes;
  /** The part of the pixel that is of the lighter. The rest is of the darker. */
  share: Float32Array;
}

/** Means over each pixel: of its colour, of the powers of its light Y, of products of both. */
export interface Moments extends Planes {
  light2: Float32Array;
  light3: Float32Array;
  redLight: Float32Array;
  blueLight: Float32Array;
}

/** A darker tone within so much of the mean is none: no curve on the bench tells them apart, and what has no grain is rendered once. */
const LEAST_DEPTH = 0.012;
const LEAST_SHARE = 1 / 256;

/** The moments of pixels that are one colour, or what their grain stands for. `light` gives luminance in their primaries. */
export function momentsOf(colour: Planes, light: Weights, grain?: Grain): Moments {
  if (!grain) return powersOf(colour, light);
  const [darker, lighter] = [powersOf(grain.darker, light), powersOf(grain.lighter, light)];
  const mixed = (name: keyof Moments) => lighter[name].map((high, i) => darker[name][i]! + grain.share[i]! * (high - darker[name][i]!));
  return {
    ...colour,
    light2: mixed("light2"),
    light3: mixed("light3"),
    redLight: mixed("redLight"),
    blueLight: mixed("blueLight"),
  };
}

function powersOf(colour: Planes, { red, green, blue }: Weights): Moments {
  const { length } = colour.red;
  const [light2, light3, redLight, blueLight] = Array.from({ length: 4 }, () => new Float32Array(length)) as [
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  for (let i = 0; i < length; i++) {
    const [r, b] = [colour.red[i]!, colour.blue[i]!];
    const y = red * r + green * colour.green[i]! + blue * b;
    light2[i] = y * y;
    light3[i] = y * y * y;
    redLight[i] = r * y;
    blueLight[i] = b * y;
  }
  return { ...colour, light2, light3, redLight, blueLight };
}

/** Moments of reduced rows; shapes as in `areaReduceRows`. */
export function reduceMoments(moments: Moments, firstSourceRow: number, size: Size, reduced: Size, from: number, to: number): Moments {
  const reducedPlane = (name: keyof Moments) => areaReduceRows(moments[name], firstSourceRow, size, reduced, from, to);
  return {
    red: reducedPlane("red"),
    green: reducedPlane("green"),
    blue: reducedPlane("blue"),
    light2: reducedPlane("light2"),
    light3: reducedPlane("light3"),
    redLight: reducedPlane("redLight"),
    blueLight: reducedPlane("blueLight"),
  };
}

/** The grain of moments; undefined where no pixel has any. */
export function grainOf(moments: Moments, light: Weights): Grain | undefined {
  const { red, green, blue } = moments;
  const grain: Grain = { darker: copyOf(moments), lighter: copyOf(moments), share: new Float32Array(red.length) };
  let hasAny = false;
  for (let i = 0; i < red.length; i++) {
    const mean = light.red * red[i]! + light.green * green[i]! + light.blue * blue[i]!;
    const variance = moments.light2[i]! - mean * mean;
    if (!(mean > 0 && variance > 0)) continue;
    const deviation = Math.sqrt(variance);
    const skewness = (moments.light3[i]! - 3 * mean * moments.light2[i]! + 2 * mean ** 3) / (variance * deviation);
    const share = Math.min(Math.max(0.5 * (1 - skewness / Math.sqrt(skewness * skewness + 4)), LEAST_SHARE), 1 - LEAST_SHARE);
    const down = Math.min(deviation * Math.sqrt(share / (1 - share)), mean);
    if (down < LEAST_DEPTH * mean) continue;
    hasAny = true;
    grain.share[i] = share;
    const redSlope = (moments.redLight[i]! - red[i]! * mean) / variance;
    const blueSlope = (moments.blueLight[i]! - blue[i]! * mean) / variance;
    const up = (down * (1 - share)) / share;
    setColour(grain.darker, i, -down, redSlope, blueSlope, light);
    setColour(grain.lighter, i, up, redSlope, blueSlope, light);
  }
  return hasAny ? grain : undefined;
}

/** Moves a colour along its line until its light has changed by so much. */
function setColour({ red, green, blue }: Planes, i: number, change: number, redSlope: number, blueSlope: number, light: Weights): void {
  red[i] = red[i]! + change * redSlope;
  blue[i] = blue[i]! + change * blueSlope;
  green[i] = green[i]! + (change * (1 - light.red * redSlope - light.blue * blueSlope)) / light.green;
}

function copyOf({ red, green, blue }: Planes): Planes {
  return { red: red.slice(), green: green.slice(), blue: blue.slice() };
}
