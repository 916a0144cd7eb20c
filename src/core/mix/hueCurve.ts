import { hermite, slopeBetween } from "../curves/cubic";
import type { Stops } from "../units";

/** A point of the hue response: colours of this OKLCH hue are lightened or darkened by so many stops. */
export interface HueKnot {
  hueDeg: number;
  stops: Stops;
}

export const HUE_STOPS_LIMIT = 3;
export const MOST_HUE_KNOTS = 24;
/** The least distance of two knots, in degrees. */
export const LEAST_HUE_GAP = 2;
/** A new knot reaches this far to either side, in degrees: beyond, the response stays as it was. */
const KNOT_REACH = 50;

/**
 * The hue response in stops as a smooth periodic function of hue: monotone cubic between the
 * knots, so nothing overshoots and a hue between two untouched knots stays untouched.
 *
 * Shape   knots ordered by hue, at least `LEAST_HUE_GAP` apart.
 * Units   degrees in (any, wrapped), stops out.
 * Source  Fritsch & Carlson (1980) with Fritsch & Butland (1984) slopes, wrapped around.
 */
export function hueCurve(knots: readonly HueKnot[]): (hueDeg: number) => number {
  const count = knots.length;
  if (count === 0) return () => 0;
  if (count === 1) return () => knots[0]!.stops;
  const width = knots.map((knot, i) => wrapDeg(knots[(i + 1) % count]!.hueDeg - knot.hueDeg));
  const secant = knots.map((knot, i) => (knots[(i + 1) % count]!.stops - knot.stops) / width[i]!);
  const slope = knots.map((_, i) => {
    const before = (i + count - 1) % count;
    return slopeBetween(secant[before]!, secant[i]!, width[before]!, width[i]!);
  });
  return (hueDeg) => {
    const hue = wrapDeg(hueDeg);
    let i = count - 1;
    while (i > 0 && knots[i]!.hueDeg > hue) i--;
    if (knots[i]!.hueDeg > hue) i = count - 1;
    const next = (i + 1) % count;
    const from = { x: 0, y: knots[i]!.stops };
    return hermite(from, { x: width[i]!, y: knots[next]!.stops }, slope[i]!, slope[next]!, wrapDeg(hue - knots[i]!.hueDeg));
  };
}

/**
 * A knot at a hue, where the curve runs now, with a resting knot to either side so that pulling it
 * leaves far hues alone. An existing knot close by is taken instead.
 *
 * Returns the knots in order and the index of the one to pull; undefined index where no more fit.
 */
export function addHueKnot(knots: readonly HueKnot[], hueDeg: number): { knots: HueKnot[]; index: number | undefined } {
  const hue = wrapDeg(hueDeg);
  const near = knots.findIndex((knot) => hueDistance(knot.hueDeg, hue) < 3 * LEAST_HUE_GAP);
  if (near >= 0) return { knots: [...knots], index: near };
  const curve = hueCurve(knots);
  const added: HueKnot = { hueDeg: hue, stops: curve(hue) };
  const resting = [hue - KNOT_REACH, hue + KNOT_REACH]
    .map((at) => ({ hueDeg: wrapDeg(at), stops: curve(at) }))
    .filter((rest) => !knots.some((knot) => betweenHues(hue, rest.hueDeg, knot.hueDeg)));
  if (knots.length + 1 + resting.length > MOST_HUE_KNOTS) return { knots: [...knots], index: undefined };
  const joined = [...knots, added, ...resting].sort((a, b) => a.hueDeg - b.hueDeg);
  return { knots: joined, index: joined.indexOf(added) };
}

/** Moves a knot; it stops short of its neighbours' hues and at ±3 stops. */
export function moveHueKnot(knots: readonly HueKnot[], index: number, target: HueKnot): HueKnot[] {
  const stops = Math.min(Math.max(target.stops, -HUE_STOPS_LIMIT), HUE_STOPS_LIMIT);
  const low = (knots[index - 1]?.hueDeg ?? -LEAST_HUE_GAP) + LEAST_HUE_GAP;
  const high = (knots[index + 1]?.hueDeg ?? 360) - LEAST_HUE_GAP;
  const hueDeg = Math.min(Math.max(target.hueDeg, low), high);
  return knots.map((knot, i) => (i === index ? { hueDeg, stops } : knot));
}

export function removeHueKnot(knots: readonly HueKnot[], index: number): HueKnot[] {
  return knots.filter((_, i) => i !== index);
}

const HUE_NAMES = [
  { upTo: 12, name: "pink" },
  { upTo: 40, name: "red" },
  { upTo: 70, name: "orange" },
  { upTo: 100, name: "ochre" },
  { upTo: 122, name: "yellow" },
  { upTo: 160, name: "green" },
  { upTo: 205, name: "turquoise" },
  { upTo: 240, name: "sky blue" },
  { upTo: 280, name: "blue" },
  { upTo: 320, name: "violet" },
  { upTo: 345, name: "purple" },
  { upTo: 361, name: "pink" },
] as const;

/** Each named hue once, at its middle. Units: degrees of OKLCH hue. */
export const NAMED_HUES: readonly { name: string; hueDeg: number }[] = HUE_NAMES.slice(0, -1).map(({ name, upTo }, i) => {
  // The first goes on below 0.
  const from = i === 0 ? HUE_NAMES.at(-2)!.upTo - 360 : HUE_NAMES[i - 1]!.upTo;
  return { name, hueDeg: wrapDeg((from + upTo) / 2) };
});

/** A plain word for an OKLCH hue. */
export function hueName(hueDeg: number): string {
  const hue = wrapDeg(hueDeg);
  return HUE_NAMES.find((entry) => hue < entry.upTo)!.name;
}

function wrapDeg(deg: number): number {
  return ((deg % 360) + 360) % 360;
}

function hueDistance(a: number, b: number): number {
  const d = wrapDeg(a - b);
  return Math.min(d, 360 - d);
}

/** Whether a knot lies between a hue and a place beside it, or too close beyond that place. */
function betweenHues(hue: number, place: number, knotHue: number): boolean {
  const reach = hueDistance(hue, place) + LEAST_HUE_GAP;
  const side = wrapDeg(place - hue) < 180 ? wrapDeg(knotHue - hue) : wrapDeg(hue - knotHue);
  return side <= reach;
}
