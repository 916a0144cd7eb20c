import type { Planes } from "../kernels/planes";
import { oklabPlanes } from "../colour/oklab";
import { addHueKnot, hueCurve, HUE_STOPS_LIMIT, moveHueKnot, type HueKnot } from "./hueCurve";
import type { Stops, Tone } from "../units";

/** All of one colour in a picture. */
export interface ColourArea {
  lightness: number;
  a: number;
  b: number;
  /** The tone it is mixed to, 0–1. */
  tone: Tone;
  /** How much of the picture it is, 0–1. */
  share: number;
}

/** Two colours that come to one tone. */
export interface Twins {
  one: ColourArea;
  other: ColourArea;
}

const AREAS = 14;
const ROUNDS = 8;
/** Differences of a and b count so many times those of lightness: areas are told by colour first. */
const COLOUR_COUNTS = 2;
/** Nearer than this, two areas are one. Units: OKLab, so weighed. */
const ONE_AREA = 0.06;
const LEAST_SHARE = 0.01;
/** Colours that are twins differ in a and b by this at least, and in tone by that at most: half a zone. */
export const TWIN_COLOUR = 0.06;
export const TWIN_TONE = 0.05;
const MOST_TWINS = 6;

/**
 * Pairs of areas whose colours differ and whose tones do not, the weightiest first.
 *
 * Shape   planes of a small picture, some thousands of places, and the tones they are mixed to. Units: linear Display P3; tones 0–1.
 * Source  areas by k-means (Lloyd 1982) from the colours farthest apart; the pairs are our own reckoning.
 */
export function findTwins(colours: Planes, tones: Float32Array): Twins[] {
  const areas = areasOf(colours, tones).filter(({ share }) => share >= LEAST_SHARE);
  const pairs = areas.flatMap((one, i) => areas.slice(i + 1).map((other) => ({ one, other, weight: weightOf(one, other) })));
  return pairs
    .filter(({ weight }) => weight > 0)
    .sort((p, q) => q.weight - p.weight)
    .slice(0, MOST_TWINS)
    .map(({ one, other }) => ({ one, other }));
}

/** How much two areas are twins: 0 where they are not. */
function weightOf(one: ColourArea, other: ColourArea): number {
  const colour = Math.hypot(one.a - other.a, one.b - other.b);
  const tone = Math.abs(one.tone - other.tone);
  if (colour < TWIN_COLOUR || tone > TWIN_TONE) return 0;
  return Math.min(one.share, other.share) * colour * (1 - tone / (2 * TWIN_TONE));
}

function areasOf({ red, green, blue }: Planes, tones: Float32Array): ColourArea[] {
  const { lightness, a, b } = oklabPlanes(red, green, blue);
  const count = red.length;
  const at = (i: number): ColourArea => ({ lightness: lightness[i]!, a: a[i]!, b: b[i]!, tone: tones[i]!, share: 1 / count });
  let centres = farApart(Array.from({ length: count }, (_, i) => at(i)));
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => ({ lightness: 0, a: 0, b: 0, tone: 0, share: 0 }));
    for (let i = 0; i < count; i++) {
      const place = at(i);
      const sum = sums[nearest(centres, place)]!;
      sum.lightness += place.lightness;
      sum.a += place.a;
      sum.b += place.b;
      sum.tone += place.tone;
      sum.share += 1;
    }
    centres = sums
      .filter(({ share }) => share > 0)
      .map((sum) => ({
        lightness: sum.lightness / sum.share,
        a: sum.a / sum.share,
        b: sum.b / sum.share,
        tone: sum.tone / sum.share,
        share: sum.share / count,
      }));
  }
  return merged(centres);
}

/** Places of which each is the farthest from all before it, the first from the mean. */
function farApart(places: readonly ColourArea[]): ColourArea[] {
  const mean = places.reduce((sum, { lightness, a, b }) => ({ ...sum, lightness: sum.lightness + lightness, a: sum.a + a, b: sum.b + b }), {
    lightness: 0,
    a: 0,
    b: 0,
    tone: 0,
    share: 0,
  });
  const begin = { ...mean, lightness: mean.lightness / places.length, a: mean.a / places.length, b: mean.b / places.length };
  const away = places.map((place) => squared(place, begin));
  const chosen: ColourArea[] = [];
  while (chosen.length < AREAS) {
    const farthest = away.reduce((best, distance, i) => (distance > away[best]! ? i : best), 0);
    if (chosen.length > 0 && away[farthest]! <= 0) break;
    const next = places[farthest]!;
    places.forEach((place, i) => (away[i] = chosen.length === 0 ? squared(place, next) : Math.min(away[i]!, squared(place, next))));
    chosen.push(next);
  }
  return chosen;
}

/** Areas that are one, together. */
function merged(areas: readonly ColourArea[]): ColourArea[] {
  const whole: ColourArea[] = [];
  for (const area of areas.toSorted((p, q) => q.share - p.share)) {
    const k = whole.findIndex((other) => squared(area, other) < ONE_AREA ** 2);
    if (k < 0) whole.push(area);
    else whole[k] = mean(whole[k]!, area);
  }
  return whole;
}

function mean(p: ColourArea, q: ColourArea): ColourArea {
  const share = p.share + q.share;
  const of = (name: "lightness" | "a" | "b" | "tone") => (p.share * p[name] + q.share * q[name]) / share;
  return { lightness: of("lightness"), a: of("a"), b: of("b"), tone: of("tone"), share };
}

function nearest(areas: readonly ColourArea[], place: ColourArea): number {
  let [best, least] = [0, Infinity];
  areas.forEach((area, i) => {
    const distance = squared(area, place);
    if (distance < least) [best, least] = [i, distance];
  });
  return best;
}

type Colour = Pick<ColourArea, "lightness" | "a" | "b">;

function squared(p: Colour, q: Colour): number {
  return (p.lightness - q.lightness) ** 2 + COLOUR_COUNTS ** 2 * ((p.a - q.a) ** 2 + (p.b - q.b) ** 2);
}

/** How far places of a small picture are of one area, or, below nothing, of the other. Units: −1…1. */
export function twinPlane({ red, green, blue }: Planes, one: Colour, other: Colour): Float32Array<ArrayBuffer> {
  const { lightness, a, b } = oklabPlanes(red, green, blue);
  const plane = new Float32Array(red.length);
  for (let i = 0; i < plane.length; i++) {
    const place = { lightness: lightness[i]!, a: a[i]!, b: b[i]! };
    const [p, q] = [squared(place, one), squared(place, other)];
    plane[i] = (p < q ? 1 : -1) * Math.exp(-Math.min(p, q) / (2 * REACH ** 2));
  }
  return plane;
}
/** How far from an area's middle a place is still of it. */
const REACH = 0.12;

/** Less chroma than this is no hue to pull. */
const LEAST_CHROMA = 0.02;
/** Hues nearer than this are pulled together. Units: degrees. */
const ONE_HUE = 24;

/** The hue an area can be pulled by; undefined for a neutral one. */
export function hueOfArea({ a, b }: Pick<ColourArea, "a" | "b">): number | undefined {
  return Math.hypot(a, b) < LEAST_CHROMA ? undefined : ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
}

/** Whether hues can part two areas: not where both are of one. */
export function canPart({ one, other }: Twins): boolean {
  const [p, q] = [hueOfArea(one), hueOfArea(other)];
  if (p === undefined || q === undefined) return p !== q;
  return 180 - Math.abs(Math.abs(p - q) - 180) >= ONE_HUE;
}

/**
 * The hue line with one area lightened and the other darkened by half of some stops each, or by all where the other is neutral; undefined
 * where no more knots fit.
 */
export function partedKnots(knots: readonly HueKnot[], { one, other }: Twins, stops: Stops): HueKnot[] | undefined {
  const [p, q] = [hueOfArea(one), hueOfArea(other)];
  const half = p === undefined || q === undefined ? stops : stops / 2;
  const first = p === undefined ? [...knots] : pulled(knots, p, half);
  return first && (q === undefined ? first : pulled(first, q, -half));
}

function pulled(knots: readonly HueKnot[], hueDeg: number, by: number): HueKnot[] | undefined {
  const now = hueCurve(knots)(hueDeg);
  const { knots: with_, index } = addHueKnot(knots, hueDeg);
  if (index === undefined) return undefined;
  const stops = Math.min(Math.max(now + by, -HUE_STOPS_LIMIT), HUE_STOPS_LIMIT);
  return moveHueKnot(with_, index, { hueDeg: with_[index]!.hueDeg, stops });
}
