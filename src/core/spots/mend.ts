import type { Planes } from "../kernels/planes";
import { distanceFrom } from "../brush/path";
import type { Grain } from "../grain/grain";
import { CHANNELS, LUMINANCE_WEIGHTS } from "../mix/weights";
import type { Point } from "../region/region";
import { common, type Area } from "./area";
import { SPREADS, type SpotPiece } from "./pieces";

/** A rectangle of a picture in linear light, with what lies inside its pixels where it was reduced. */
export interface Pixels {
  area: Area;
  colour: Planes;
  grain: Grain | undefined;
}

/** What is laid over a picture: pixels, and how far each covers what is beneath, 0–1. */
export interface Mending extends Pixels {
  cover: Float32Array;
}

/** Light is multiplied by so much at the most where it is brought to that of its new place, or by one over it. */
const MOST_GAIN = 4;
/** Linear light below which a ratio of lights tells nothing. */
const DARK = 0.002;
/** Half the width of an edge at the least, in pixels: that of a pixel itself. */
const LEAST_EDGE = 0.5;
/** The side of a cell in which light is read in proportion, in radii. */
const CELL = 1 / 6;
/**
 * Places of the ring whose ratio of lights lies so many deviations from the middle one are not believed, unless it is nearly the same
 * (natural logarithm).
 */
const MOST_DEVIATIONS = 3;
const LEAST_APART = 0.04;
/** How near to a place of the ring its own light is met exactly, in radii. */
const CLOSE = 0.3;

/**
 * What a piece of a spot is covered with: the texture from where it takes, in the light of where it lies.
 *
 * Around the spot light and colour are compared with those around the place it takes from: a gain for all of light, so that a texture keeps
 * its contrast, and a rest for each channel. Inside they follow a plane fitted to all these places (least squares) and what each differs
 * from it, weighted by the inverse fourth power of the distance (Shepard 1968): smooth, exact for light that changes evenly, and met at the
 * border. Compared with the membrane in docs/decisions/0029.
 *
 * Shape   `here` holds `piece.around`, `there` holds `piece.source`; returns `piece.area`.
 */
export function mend(piece: SpotPiece, here: Pixels, there: Pixels): Mending {
  const { area, points, radius, from, spot } = piece;
  const told = spot.kind === "heal" ? lightMet(piece, here, there) : undefined;
  const light = told && onCells(told, area, Math.max(Math.floor(radius * CELL), 1));
  const pixels = area.width * area.height;
  const out: Mending = {
    area,
    colour: emptied(pixels),
    grain: there.grain && { darker: emptied(pixels), lighter: emptied(pixels), share: new Float32Array(pixels) },
    cover: new Float32Array(pixels),
  };
  const edge = Math.max((radius * spot.softness) / 2, LEAST_EDGE);
  const middle = Math.max(radius - edge, 0);
  const met = Float64Array.of(1, 0, 0, 0);
  const at: Samples = { first: 0, next: 0, below: 0, after: 0, right: 0, down: 0 };
  for (let row = 0, i = 0; row < area.height; row++) {
    for (let column = 0; column < area.width; column++, i++) {
      const place = { x: area.x + column + 0.5, y: area.y + row + 0.5 };
      const cover = fading((distanceFrom(points, place) - middle) / edge);
      if (cover === 0) continue;
      out.cover[i] = cover;
      findSamples(there.area, place.x + from.x, place.y + from.y, at);
      light?.(place.x, place.y, met);
      take(there.colour, at, met, out.colour, i);
      if (!out.grain) continue;
      take(there.grain!.darker, at, met, out.grain.darker, i);
      take(there.grain!.lighter, at, met, out.grain.lighter, i);
      out.grain.share[i] = sample(there.grain!.share, at);
    }
  }
  return out;
}

/** Lays a mending over pixels, as far as it lies on them. */
export function lay(mending: Mending, pixels: Pixels): void {
  const { x, y, width, height } = common(mending.area, pixels.area);
  for (let row = y; row < y + height; row++) {
    for (let column = x; column < x + width; column++) {
      const m = (row - mending.area.y) * mending.area.width + column - mending.area.x;
      const cover = mending.cover[m]!;
      if (cover === 0) continue;
      const i = (row - pixels.area.y) * pixels.area.width + column - pixels.area.x;
      const { grain } = pixels;
      if (!grain) {
        blend(pixels.colour, i, mending.colour, m, cover);
        continue;
      }
      blend(grain.darker, i, mending.grain?.darker ?? mending.colour, m, cover);
      blend(grain.lighter, i, mending.grain?.lighter ?? mending.colour, m, cover);
      const share = (grain.share[i]! += cover * ((mending.grain?.share[m] ?? 0) - grain.share[i]!));
      for (const name of CHANNELS) pixels.colour[name][i] = (1 - share) * grain.darker[name][i]! + share * grain.lighter[name][i]!;
    }
  }
}

/** Light told at the corners of square cells, and between them read in proportion: it changes slowly. */
function onCells(told: (x: number, y: number, out: Float64Array) => void, { x, y, width, height }: Area, cell: number): typeof told {
  if (cell === 1) return told;
  const [columns, rows] = [Math.ceil(width / cell) + 1, Math.ceil(height / cell) + 1];
  const corners = new Float64Array(TERMS.length * columns * rows);
  for (let i = 0; i < columns * rows; i++)
    told(x + cell * (i % columns), y + cell * Math.floor(i / columns), corners.subarray(TERMS.length * i, TERMS.length * (i + 1)));
  return (atX, atY, out) => {
    const [u, v] = [(atX - x) / cell, (atY - y) / cell];
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const upper = TERMS.length * (row * columns + column);
    const lower = upper + TERMS.length * columns;
    for (const k of TERMS) {
      const above = corners[upper + k]! + (u - column) * (corners[upper + TERMS.length + k]! - corners[upper + k]!);
      const below = corners[lower + k]! + (u - column) * (corners[lower + TERMS.length + k]! - corners[lower + k]!);
      out[k] = above + (v - row) * (below - above);
    }
  };
}

/** A gain of light, and what is added to each channel. */
type Met = readonly [gain: number, red: number, green: number, blue: number];
const TERMS = [0, 1, 2, 3] as const;

/** How the light of the one place becomes that of the other, given for each place as a `Met`; undefined where nothing tells. */
function lightMet({ ring, spread, from, radius }: SpotPiece, here: Pixels, there: Pixels) {
  const compared: { place: Point; met: Met; ratio: number }[] = [];
  for (const place of ring) {
    const own = lightAround(here, place, spread);
    const taken = lightAround(there, { x: place.x + from.x, y: place.y + from.y }, spread);
    if (own && taken) compared.push({ place, met: metBetween(taken, own), ratio: Math.log(ratioBetween(taken, own)) });
  }
  if (compared.length === 0) return undefined;
  const told = agreeing(compared);
  const fitted = TERMS.map((k) => fittedPlane(told, k));
  const [xs, ys] = [Float64Array.from(told, ({ place }) => place.x), Float64Array.from(told, ({ place }) => place.y)];
  const rests = TERMS.map((k) => Float64Array.from(told, ({ place, met }) => met[k] - planeAt(fitted[k]!, place.x, place.y)));
  const close = (CLOSE * radius) ** 2;
  const weights = new Float64Array(told.length);
  return (x: number, y: number, out: Float64Array): void => {
    let sum = 0;
    for (let i = 0; i < weights.length; i++) {
      const [dx, dy] = [xs[i]! - x, ys[i]! - y];
      const near = 1 / (dx * dx + dy * dy + close);
      sum += weights[i] = near * near;
    }
    for (const k of TERMS) {
      const rest = rests[k]!;
      let weighted = 0;
      for (let i = 0; i < weights.length; i++) weighted += weights[i]! * rest[i]!;
      out[k] = planeAt(fitted[k]!, x, y) + weighted / sum;
    }
  };
}

/**
 * What most of the places agree on: where an edge lies on the one side of a place and not on the other, it would throw its light over all
 * of the spot.
 */
function agreeing<T extends { ratio: number }>(compared: readonly T[]): T[] {
  const middle = median(compared.map(({ ratio }) => ratio));
  const apart = Math.max(MOST_DEVIATIONS * 1.4826 * median(compared.map(({ ratio }) => Math.abs(ratio - middle))), LEAST_APART);
  return compared.filter(({ ratio }) => Math.abs(ratio - middle) <= apart);
}

const median = (values: readonly number[]) => values.toSorted((a, b) => a - b)[values.length >> 1]!;

function metBetween(taken: readonly number[], own: readonly number[]): Met {
  const gain = Math.min(Math.max(ratioBetween(taken, own), 1 / MOST_GAIN), MOST_GAIN);
  return [gain, own[0]! - gain * taken[0]!, own[1]! - gain * taken[1]!, own[2]! - gain * taken[2]!];
}

function ratioBetween(taken: readonly number[], own: readonly number[]): number {
  const luminance = ([red, green, blue]: readonly number[]) =>
    Math.max(LUMINANCE_WEIGHTS.red * red! + LUMINANCE_WEIGHTS.green * green! + LUMINANCE_WEIGHTS.blue * blue!, 0);
  return (luminance(own) + DARK) / (luminance(taken) + DARK);
}

/** A value over places: so much in the middle, and so much more a pixel. */
interface Plane {
  middle: Point;
  level: number;
  slope: Point;
}

const planeAt = ({ middle, level, slope }: Plane, x: number, y: number) => level + slope.x * (x - middle.x) + slope.y * (y - middle.y);

/** The plane through what places tell of one term, by least squares; level where they do not tell a slope. */
function fittedPlane(told: readonly { place: Point; met: Met }[], k: 0 | 1 | 2 | 3): Plane {
  const mean = (of: (one: (typeof told)[number]) => number) => told.reduce((sum, one) => sum + of(one), 0) / told.length;
  const middle = { x: mean(({ place }) => place.x), y: mean(({ place }) => place.y) };
  const level = mean(({ met }) => met[k]);
  const [xx, xy, yy] = [
    mean(({ place }) => (place.x - middle.x) ** 2),
    mean(({ place }) => (place.x - middle.x) * (place.y - middle.y)),
    mean(({ place }) => (place.y - middle.y) ** 2),
  ];
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-3 * Math.max(xx, yy) ** 2) return { middle, level, slope: { x: 0, y: 0 } };
  const [xv, yv] = [mean(({ place, met }) => (place.x - middle.x) * met[k]), mean(({ place, met }) => (place.y - middle.y) * met[k])];
  return { middle, level, slope: { x: (yy * xv - xy * yv) / determinant, y: (xx * yv - xy * xv) / determinant } };
}

/** The mean colour around a place, weighted by nearness; undefined where the place is not among the pixels. */
function lightAround({ area, colour }: Pixels, { x, y }: Point, spread: number): number[] | undefined {
  if (x < area.x || y < area.y || x > area.x + area.width || y > area.y + area.height) return undefined;
  const reach = SPREADS * spread;
  const [left, right] = [Math.max(Math.floor(x - reach), area.x), Math.min(Math.ceil(x + reach), area.x + area.width)];
  const [top, bottom] = [Math.max(Math.floor(y - reach), area.y), Math.min(Math.ceil(y + reach), area.y + area.height)];
  const nearness = (from: number, end: number, middle: number) =>
    Float64Array.from({ length: Math.max(end - from, 0) }, (_, i) => Math.exp(-((from + i + 0.5 - middle) ** 2) / (2 * spread * spread)));
  const [across, down] = [nearness(left, right, x), nearness(top, bottom, y)];
  let weights = 0;
  let red = 0;
  let green = 0;
  let blue = 0;
  for (let row = top; row < bottom; row++) {
    for (let column = left; column < right; column++) {
      const weight = across[column - left]! * down[row - top]!;
      const i = (row - area.y) * area.width + column - area.x;
      weights += weight;
      red += weight * colour.red[i]!;
      green += weight * colour.green[i]!;
      blue += weight * colour.blue[i]!;
    }
  }
  return weights > 0 ? [red / weights, green / weights, blue / weights] : undefined;
}

/** Four pixels around a place, and how far it lies towards those on the right and below. */
interface Samples {
  first: number;
  next: number;
  below: number;
  after: number;
  right: number;
  down: number;
}

/** Finds the pixels around a place, its nearest at the borders. */
function findSamples({ x: left, y: top, width, height }: Area, x: number, y: number, at: Samples): void {
  const u = Math.min(Math.max(x - left - 0.5, 0), width - 1);
  const v = Math.min(Math.max(y - top - 0.5, 0), height - 1);
  const [column, row] = [Math.floor(u), Math.floor(v)];
  const [right, down] = [column + 1 < width ? 1 : 0, row + 1 < height ? width : 0];
  at.first = row * width + column;
  at.next = at.first + right;
  at.below = at.first + down;
  at.after = at.below + right;
  at.right = u - column;
  at.down = v - row;
}

function sample(plane: Float32Array, { first, next, below, after, right, down }: Samples): number {
  const upper = plane[first]! + right * (plane[next]! - plane[first]!);
  const lower = plane[below]! + right * (plane[after]! - plane[below]!);
  return upper + down * (lower - upper);
}

function take({ red, green, blue }: Planes, at: Samples, met: Float64Array, out: Planes, i: number): void {
  out.red[i] = met[0]! * sample(red, at) + met[1]!;
  out.green[i] = met[0]! * sample(green, at) + met[2]!;
  out.blue[i] = met[0]! * sample(blue, at) + met[3]!;
}

function blend(planes: Planes, i: number, by: Planes, m: number, cover: number): void {
  for (const name of CHANNELS) planes[name][i] = planes[name][i]! + cover * (by[name][m]! - planes[name][i]!);
}

/** From 1 at −1 to 0 at 1, smoothly. */
function fading(u: number): number {
  if (u >= 1) return 0;
  return u <= -1 ? 1 : 0.5 - 0.5 * Math.sin((Math.PI / 2) * u);
}

function emptied(pixels: number): Planes {
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}
