import { CHANNELS } from "../mix/weights";
import type { Point } from "../region/region";
import type { Pixels } from "./mend";
import { distanceFrom } from "./pieces";

/** A spot to be covered, on the pixels. Units: pixels. */
export interface Uncovered {
  points: readonly Point[];
  radius: number;
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
/** Places compared at the most. */
const MOST_SAMPLES = 500;
/** So many of the best are moved about, by half a radius, then half of that and so on. */
const CLOSER = 6;
const MOST_ROUNDS = 16;
/** Levels of noise, as a variance of the cube root of light: differences below it mean nothing. */
const NOISE = 2e-5;
/** What tells a place to take from apart, beside how its surroundings continue those of the spot. */
const WEIGHTS = { contrast: 0.15, level: 0.4, distance: 0.01 };

/**
 * Proposes where to take from to cover a spot: of the places around it the one whose surroundings go on as the spot's own do, and whose inside is as lively as these.
 *
 * Of a grid of places the best are moved about a little, so that stripes meet stripes.
 *
 * Shape   pixels that hold the spot and what is around it, `FARTHEST_SOURCE` radii where the picture goes so far.
 * Returns how far away it lies, in whole pixels; undefined where there is no room for one.
 */
export function proposeSource(pixels: Pixels, spot: Uncovered): Point | undefined {
  const samples = samplesOf(pixels, spot);
  if (samples.ring.length === 0) return undefined;
  const cost = (by: Point) => costOf(pixels, spot, samples, by);
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

/** Pixels around a spot with what they hold, and pixels in it. */
interface Samples {
  ring: Point[];
  /** The cube root of light of each channel, sample by sample. */
  values: number[][];
  inside: Point[];
  variance: number;
}

function samplesOf(pixels: Pixels, { points, radius }: Uncovered): Samples {
  const reach = FAR * radius;
  const { x, y, width, height } = pixels.area;
  const xs = points.map((point) => point.x);
  const ys = points.map((point) => point.y);
  const [left, right] = [Math.max(Math.floor(Math.min(...xs) - reach), x), Math.min(Math.ceil(Math.max(...xs) + reach), x + width)];
  const [top, bottom] = [Math.max(Math.floor(Math.min(...ys) - reach), y), Math.min(Math.ceil(Math.max(...ys) + reach), y + height)];
  const ring: Point[] = [];
  const inside: Point[] = [];
  for (let row = top; row < bottom; row++) {
    for (let column = left; column < right; column++) {
      const place = { x: column + 0.5, y: row + 0.5 };
      const away = distanceFrom(points, place) / radius;
      if (away < 1) inside.push(place);
      else if (away > NEAR && away < FAR) ring.push(place);
    }
  }
  const kept = thinned(ring);
  const values = kept.map((place) => valuesAt(pixels, place.x, place.y)!);
  return { ring: kept, values, inside: thinned(inside), variance: varianceOf(values) };
}

/** As many of some places as are compared, evenly. */
function thinned(places: readonly Point[]): Point[] {
  const every = Math.max(places.length / MOST_SAMPLES, 1);
  return Array.from({ length: Math.floor(places.length / every) }, (_, i) => places[Math.floor(i * every)]!);
}

function costOf(pixels: Pixels, { points, radius }: Uncovered, { ring, values, inside, variance }: Samples, by: Point): number {
  for (const { x, y } of points) if (distanceFrom(points, { x: x + by.x, y: y + by.y }) < APART * radius) return Infinity;
  const moved = (places: readonly Point[]) => places.map(({ x, y }) => valuesAt(pixels, x + by.x, y + by.y));
  const covers = moved(inside);
  if (covers.some((value) => !value)) return Infinity;
  const around = moved(ring);
  const pairs = around.flatMap((there, i) => (there ? [values[i]!.map((here, k) => there[k]! - here)] : []));
  if (pairs.length < ring.length / 2) return Infinity;
  const mean = [0, 1, 2].map((k) => pairs.reduce((sum, pair) => sum + pair[k]!, 0) / pairs.length);
  const level = mean.reduce((sum, value) => sum + value * value, 0);
  const unlike = pairs.reduce((sum, pair) => sum + pair.reduce((part, value, k) => part + (value - mean[k]!) ** 2, 0), 0) / pairs.length;
  const contrast = Math.log((varianceOf(covers as number[][]) + NOISE) / (variance + NOISE));
  const distance = Math.hypot(by.x, by.y) / radius;
  return (
    unlike / (variance + NOISE) +
    WEIGHTS.contrast * contrast * contrast +
    (WEIGHTS.level * level) / (variance + NOISE) ** 0.5 +
    WEIGHTS.distance * distance
  );
}

function varianceOf(values: readonly number[][]): number {
  return [0, 1, 2].reduce((sum, k) => {
    const mean = values.reduce((total, value) => total + value[k]!, 0) / values.length;
    return sum + values.reduce((total, value) => total + (value[k]! - mean) ** 2, 0) / values.length;
  }, 0);
}

/** Undefined where there is no such pixel. */
function valuesAt({ area, colour }: Pixels, x: number, y: number): number[] | undefined {
  const [column, row] = [Math.floor(x) - area.x, Math.floor(y) - area.y];
  if (column < 0 || row < 0 || column >= area.width || row >= area.height) return undefined;
  const i = row * area.width + column;
  return CHANNELS.map((name) => Math.cbrt(Math.max(colour[name][i]!, 0)));
}
