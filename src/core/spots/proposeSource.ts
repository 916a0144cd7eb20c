import { distanceFrom } from "../brush/path";
import { CHANNELS } from "../mix/weights";
import type { Point } from "../region/region";
import type { Pixels } from "./mend";
import { areaAround, common, type Area } from "./area";
import type { Spot } from "./spot";

/** A spot to be covered, on the pixels. Units: pixels. */
export interface Uncovered {
  points: readonly Point[];
  radius: number;
  /** Whether it takes on the light of where it is laid: a clone does not, so that its source is to have it. */
  kind: Spot["kind"];
}

/** How far away is looked, in radii, and in how many directions. */
const DISTANCES = [2.6, 3.4, 4.4, 5.8, 7.6, 10];
const DIRECTIONS = 24;
export const FARTHEST_SOURCE = DISTANCES.at(-1)!;
/** What surrounds a spot begins and ends there, in radii. */
const NEAR = 1.1;
const FAR = 2.1;
/** A place to take from keeps so many radii away from the spot itself. */
const APART = 2.15;
/** A place less than so many radii from one that was tried is no other. */
const ANOTHER = 1.5;
/** Places compared at the most. */
const MOST_SAMPLES = 500;
/** So many of the best are moved about, by half a radius, then half of that and so on. */
const CLOSER = 6;
const MOST_ROUNDS = 16;
/** Levels of noise, as a variance of the cube root of light: differences below it mean nothing. */
const NOISE = 2e-5;
/**
 * What tells a place to take from apart, beside how its surroundings continue those of the spot: how much livelier it is inside than these,
 * or calmer; its tone; how far it lies.
 */
const WEIGHTS = { livelier: 1, calmer: 0.15, level: 0.4, distance: 0.01 };
/**
 * A clone is laid in the light it has: a difference of tone counts as one where it begins to be seen, as a variance of the cube root of
 * light.
 */
const SEEN = 1e-4;

/**
 * Proposes where to take from to cover a spot: of the places around it the one whose surroundings go on as the spot's own do, and whose
 * inside is as lively as these.
 *
 * Of a grid of places the best are moved about a little, so that stripes meet stripes.
 *
 * Shape   pixels that hold the spot and what is around it, `FARTHEST_SOURCE` radii where the picture goes so far.
 *         `tried` are ways that are not wanted again.
 * Returns how far away it lies, in whole pixels; undefined where there is no room for one.
 */
export function proposeSource(pixels: Pixels, spot: Uncovered, tried: readonly Point[] = []): Point | undefined {
  const samples = samplesOf(pixels, spot);
  if (samples.around.pixels.length === 0) return undefined;
  const isTried = (by: Point) => tried.some(({ x, y }) => Math.hypot(x - by.x, y - by.y) < ANOTHER * spot.radius);
  const cost = (by: Point) => (isTried(by) ? Infinity : costOf(samples, spot, by));
  const places: { by: Point; cost: number }[] = [];
  for (const distance of DISTANCES) {
    for (let k = 0; k < DIRECTIONS; k++) {
      const turn = (2 * Math.PI * (k + (distance % 1))) / DIRECTIONS;
      const by = { x: Math.round(distance * spot.radius * Math.cos(turn)), y: Math.round(distance * spot.radius * Math.sin(turn)) };
      places.push({ by, cost: cost(by) });
    }
  }
  places.sort((a, b) => a.cost - b.cost);
  const best = places
    .slice(0, CLOSER)
    .map((place) => closer(place, spot.radius / 2, cost))
    .reduce((a, b) => (b.cost < a.cost ? b : a));
  return best.cost < Infinity ? best.by : undefined;
}

/** The best place near one. */
function closer(place: { by: Point; cost: number }, first: number, cost: (by: Point) => number): { by: Point; cost: number } {
  let best = place;
  for (let step = Math.max(Math.round(first), 1), round = 0; step >= 1 && round < MOST_ROUNDS; round++) {
    const around = [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((x) => ({ x: best.by.x + x * step, y: best.by.y + y * step })));
    const better = around.map((by) => ({ by, cost: cost(by) })).reduce((a, b) => (b.cost < a.cost ? b : a));
    if (better.cost < best.cost) best = better;
    else step = Math.floor(step / 2);
  }
  return best;
}

/** The cube root of light of each channel, and the pixels that are compared: around a spot, and in it. */
interface Samples {
  area: Area;
  roots: readonly Float32Array[];
  around: Compared;
  inside: Compared;
  /** Of what is around: of its tones, and of what of them is no even slope. */
  variance: number;
  liveliness: number;
}

/** Some pixels, each with how far it lies from their middle; and how these spread. */
interface Compared {
  pixels: Int32Array;
  x: Float32Array;
  y: Float32Array;
  xx: number;
  xy: number;
  yy: number;
}

function samplesOf({ area, colour }: Pixels, { points, radius }: Uncovered): Samples {
  const near = common(areaAround(points, FAR * radius, { width: area.x + area.width, height: area.y + area.height }), area);
  const around: number[] = [];
  const inside: number[] = [];
  for (let row = near.y; row < near.y + near.height; row++) {
    for (let column = near.x; column < near.x + near.width; column++) {
      const away = distanceFrom(points, { x: column + 0.5, y: row + 0.5 }) / radius;
      if (away > FAR || (away >= 1 && away < NEAR)) continue;
      (away < 1 ? inside : around).push((row - area.y) * area.width + column - area.x);
    }
  }
  const roots = CHANNELS.map((name) => colour[name].map((light) => Math.cbrt(Math.max(light, 0))));
  const compared = comparedOf(thinned(around), area.width);
  const variance = varianceOf(roots, compared, 0, false);
  return {
    area,
    roots,
    around: compared,
    inside: comparedOf(thinned(inside), area.width),
    variance,
    liveliness: varianceOf(roots, compared, 0, true),
  };
}

function comparedOf(pixels: Int32Array, width: number): Compared {
  const mean = (of: (pixel: number) => number) => pixels.reduce((sum, pixel) => sum + of(pixel), 0) / pixels.length;
  const [middleX, middleY] = [mean((pixel) => pixel % width), mean((pixel) => Math.floor(pixel / width))];
  const x = Float32Array.from(pixels, (pixel) => (pixel % width) - middleX);
  const y = Float32Array.from(pixels, (pixel) => Math.floor(pixel / width) - middleY);
  const products = (p: Float32Array, q: Float32Array) => p.reduce((sum, v, i) => sum + v * q[i]!, 0) / pixels.length;
  return { pixels, x, y, xx: products(x, x), xy: products(x, y), yy: products(y, y) };
}

/** As many of some pixels as are compared, evenly. */
function thinned(pixels: readonly number[]): Int32Array {
  const every = Math.max(pixels.length / MOST_SAMPLES, 1);
  return Int32Array.from({ length: Math.floor(pixels.length / every) }, (_, i) => pixels[Math.floor(i * every)]!);
}

function costOf({ area, roots, around, inside, variance, liveliness }: Samples, { points, radius, kind }: Uncovered, by: Point): number {
  for (const { x, y } of points) if (distanceFrom(points, { x: x + by.x, y: y + by.y }) < APART * radius) return Infinity;
  const { width, height } = area;
  const isInside = (pixel: number) => {
    const [x, y] = [(pixel % width) + by.x, Math.floor(pixel / width) + by.y];
    return x >= 0 && y >= 0 && x < width && y < height;
  };
  if (!inside.pixels.every(isInside)) return Infinity;
  const pairs = around.pixels.filter(isInside);
  if (pairs.length < around.pixels.length / 2) return Infinity;
  const away = by.y * width + by.x;
  let [level, unlike] = [0, 0];
  for (const plane of roots) {
    let [sum, squares] = [0, 0];
    for (const pixel of pairs) {
      const difference = plane[pixel + away]! - plane[pixel]!;
      sum += difference;
      squares += difference * difference;
    }
    const mean = sum / pairs.length;
    level += mean * mean;
    unlike += squares / pairs.length - mean * mean;
  }
  const contrast = Math.log((varianceOf(roots, inside, away, true) + NOISE) / (liveliness + NOISE));
  const distance = Math.hypot(by.x, by.y) / radius;
  return (
    unlike / (variance + NOISE) +
    (contrast > 0 ? WEIGHTS.livelier : WEIGHTS.calmer) * contrast * contrast +
    (kind === "clone" ? level / SEEN : (WEIGHTS.level * level) / (variance + NOISE) ** 0.5) +
    WEIGHTS.distance * distance
  );
}

/** The variance of some pixels, so far on in the planes; of what is left of them without their even slope, if that is asked for. */
function varianceOf(planes: readonly Float32Array[], { pixels, x, y, xx, xy, yy }: Compared, away: number, isLevelled: boolean): number {
  const determinant = xx * yy - xy * xy;
  let variance = 0;
  for (const plane of planes) {
    let [sum, squares, xv, yv] = [0, 0, 0, 0];
    for (let i = 0; i < pixels.length; i++) {
      const value = plane[pixels[i]! + away]!;
      sum += value;
      squares += value * value;
      xv += value * x[i]!;
      yv += value * y[i]!;
    }
    const n = pixels.length;
    variance += squares / n - (sum / n) ** 2;
    if (isLevelled && determinant > 0) variance -= (yy * (xv / n) ** 2 - 2 * xy * (xv / n) * (yv / n) + xx * (yv / n) ** 2) / determinant;
  }
  return Math.max(variance, 0);
}
