import type { Grain } from "../grain/grain";
import type { Planes } from "../kernels/reference";
import { CHANNELS, LUMINANCE_WEIGHTS } from "../mix/weights";
import type { Point } from "../region/region";
import { common, type Area } from "./area";
import { distanceFrom, SPREADS, type SpotPiece } from "./pieces";

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
/** How near to a place of the ring its own light is met exactly, in radii. */
const CLOSE = 0.3;

/**
 * What a piece of a spot is covered with: the texture from where it takes, in the light of where it lies.
 *
 * Around the spot light and colour are compared with those around the place it takes from: a gain for all of light, so that a texture keeps its contrast, and a rest for
 * each channel. Inside they follow a plane fitted to all these places (least squares) and what each differs from it, weighted by the inverse fourth power of
 * the distance (Shepard 1968): smooth, exact for light that changes evenly, and met at the border. Compared with the membrane in docs/decisions/0029.
 *
 * Shape   `here` holds `piece.around`, `there` holds `piece.source`; returns `piece.area`.
 */
export function mend(piece: SpotPiece, here: Pixels, there: Pixels): Mending {
  const { area, points, radius, from, spot } = piece;
  const light = spot.kind === "heal" ? lightMet(piece, here, there) : undefined;
  const out: Mending = {
    area,
    colour: emptied(area),
    grain: there.grain && { darker: emptied(area), lighter: emptied(area), share: new Float32Array(area.width * area.height) },
    cover: new Float32Array(area.width * area.height),
  };
  const edge = Math.max((radius * spot.softness) / 2, LEAST_EDGE);
  const middle = Math.max(radius - edge, 0);
  for (let row = 0, i = 0; row < area.height; row++) {
    for (let column = 0; column < area.width; column++, i++) {
      const place = { x: area.x + column + 0.5, y: area.y + row + 0.5 };
      const cover = fading((distanceFrom(points, place) - middle) / edge);
      if (cover === 0) continue;
      out.cover[i] = cover;
      const at = samplesAt(there.area, place.x + from.x, place.y + from.y);
      const met = light?.(place);
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

/** A gain of light, and what is added to each channel. */
type Met = readonly [gain: number, red: number, green: number, blue: number];
const UNCHANGED: Met = [1, 0, 0, 0];

/** How the light of the one place becomes that of the other; undefined where nothing tells. */
function lightMet({ ring, spread, from, radius }: SpotPiece, here: Pixels, there: Pixels): ((place: Point) => Met) | undefined {
  const told: { place: Point; met: Met }[] = [];
  for (const place of ring) {
    const own = lightAround(here, place, spread);
    const taken = lightAround(there, { x: place.x + from.x, y: place.y + from.y }, spread);
    if (own && taken) told.push({ place, met: metBetween(taken, own) });
  }
  if (told.length === 0) return undefined;
  const plane = fittedPlane(told);
  const rests = told.map(({ place, met }) => {
    const fitted = plane(place);
    return { place, rest: met.map((value, k) => value - fitted[k]!) };
  });
  const close = (CLOSE * radius) ** 2;
  return (at) => {
    const sums = [0, 0, 0, 0];
    let weights = 0;
    for (const { place, rest } of rests) {
      const weight = 1 / ((place.x - at.x) ** 2 + (place.y - at.y) ** 2 + close) ** 2;
      weights += weight;
      for (let k = 0; k < 4; k++) sums[k]! += weight * rest[k]!;
    }
    const fitted = plane(at);
    return [0, 1, 2, 3].map((k) => fitted[k]! + sums[k]! / weights) as unknown as Met;
  };
}

function metBetween(taken: readonly number[], own: readonly number[]): Met {
  const luminance = ([red, green, blue]: readonly number[]) =>
    Math.max(LUMINANCE_WEIGHTS.red * red! + LUMINANCE_WEIGHTS.green * green! + LUMINANCE_WEIGHTS.blue * blue!, 0);
  const gain = Math.min(Math.max((luminance(own) + DARK) / (luminance(taken) + DARK), 1 / MOST_GAIN), MOST_GAIN);
  return [gain, own[0]! - gain * taken[0]!, own[1]! - gain * taken[1]!, own[2]! - gain * taken[2]!];
}

/** The plane through what places tell, by least squares; level where they do not tell a slope. */
function fittedPlane(told: readonly { place: Point; met: Met }[]): (at: Point) => number[] {
  const mean = (of: (one: (typeof told)[number]) => number) => told.reduce((sum, one) => sum + of(one), 0) / told.length;
  const middle = { x: mean(({ place }) => place.x), y: mean(({ place }) => place.y) };
  const level = [0, 1, 2, 3].map((k) => mean(({ met }) => met[k]!));
  const [xx, xy, yy] = [
    mean(({ place }) => (place.x - middle.x) ** 2),
    mean(({ place }) => (place.x - middle.x) * (place.y - middle.y)),
    mean(({ place }) => (place.y - middle.y) ** 2),
  ];
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-3 * Math.max(xx, yy) ** 2) return () => level;
  const slopes = level.map((_, k) => {
    const [xv, yv] = [mean(({ place, met }) => (place.x - middle.x) * met[k]!), mean(({ place, met }) => (place.y - middle.y) * met[k]!)];
    return { x: (yy * xv - xy * yv) / determinant, y: (xx * yv - xy * xv) / determinant };
  });
  return ({ x, y }) => level.map((value, k) => value + slopes[k]!.x * (x - middle.x) + slopes[k]!.y * (y - middle.y));
}

/** The mean colour around a place, weighted by nearness; undefined where the place is not among the pixels. */
function lightAround({ area, colour }: Pixels, { x, y }: Point, spread: number): number[] | undefined {
  if (x < area.x || y < area.y || x > area.x + area.width || y > area.y + area.height) return undefined;
  const reach = SPREADS * spread;
  const [left, right] = [Math.max(Math.floor(x - reach), area.x), Math.min(Math.ceil(x + reach), area.x + area.width)];
  const [top, bottom] = [Math.max(Math.floor(y - reach), area.y), Math.min(Math.ceil(y + reach), area.y + area.height)];
  let [weights, red, green, blue] = [0, 0, 0, 0];
  for (let row = top; row < bottom; row++) {
    for (let column = left; column < right; column++) {
      const weight = Math.exp(-((column + 0.5 - x) ** 2 + (row + 0.5 - y) ** 2) / (2 * spread * spread));
      const i = (row - area.y) * area.width + column - area.x;
      weights += weight;
      red += weight * colour.red[i]!;
      green += weight * colour.green[i]!;
      blue += weight * colour.blue[i]!;
    }
  }
  return weights > 0 ? [red / weights, green / weights, blue / weights] : undefined;
}

/** Four pixels and their shares. */
type Samples = readonly [indices: readonly [number, number, number, number], right: number, below: number];

/** The pixels around a place, its nearest at the borders. */
function samplesAt({ x: left, y: top, width, height }: Area, x: number, y: number): Samples {
  const [u, v] = [Math.min(Math.max(x - left - 0.5, 0), width - 1), Math.min(Math.max(y - top - 0.5, 0), height - 1)];
  const [column, row] = [Math.floor(u), Math.floor(v)];
  const [next, under] = [Math.min(column + 1, width - 1), Math.min(row + 1, height - 1)];
  return [[row * width + column, row * width + next, under * width + column, under * width + next], u - column, v - row];
}

function sample(plane: Float32Array, [[a, b, c, d], right, below]: Samples): number {
  const upper = plane[a]! + right * (plane[b]! - plane[a]!);
  const lower = plane[c]! + right * (plane[d]! - plane[c]!);
  return upper + below * (lower - upper);
}

function take(planes: Planes, at: Samples, [gain, ...rest]: Met = UNCHANGED, out: Planes, i: number): void {
  CHANNELS.forEach((name, k) => (out[name][i] = gain * sample(planes[name], at) + rest[k]!));
}

function blend(planes: Planes, i: number, by: Planes, m: number, cover: number): void {
  for (const name of CHANNELS) planes[name][i] = planes[name][i]! + cover * (by[name][m]! - planes[name][i]!);
}

/** From 1 at −1 to 0 at 1, smoothly. */
function fading(u: number): number {
  if (u >= 1) return 0;
  return u <= -1 ? 1 : 0.5 - 0.5 * Math.sin((Math.PI / 2) * u);
}

function emptied({ width, height }: Area): Planes {
  const pixels = width * height;
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}
