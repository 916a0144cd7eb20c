import { smoothStep } from "../curves/smoothStep";
import type { Size } from "../spatial/areaReduce";
import type { ColourGuide } from "../spatial/toneBase";
import { wayFrom } from "./nearerPlace";
import { reachable } from "./reachable";
import type { LikenessShape, Point } from "./region";

/** The picture as likeness sees it: OKLab, one plane each, and nothing finer than an eye takes for one colour. */
export interface LabPicture extends Size {
  lightness: Float32Array;
  a: Float32Array;
  b: Float32Array;
}

type LabColour = ColourGuide["colours"][number];

/** Lightness counts half: a wall in sun and in shade is one wall. */
export const LIGHTNESS_WEIGHT = 0.5;
/** Touched colours closer than this are taken together. */
const SAME_COLOUR = 0.012;
/** From full to none, over this part of the tolerance to either side. */
const SHOULDER = 0.35;
const LEVELS = 512;

/**
 * How like the touched places every place is, 0–1: by the distance of colours in OKLab, less what is taken away, and, where asked,
 * only as far as it hangs together with a touched place.
 *
 * Shape   a value for each pixel of the picture.
 * Source  our own; the ways compared are in docs/decisions/0008-regions.md.
 */
export function likeness(picture: LabPicture, shape: LikenessShape): Float32Array {
  if (shape.apart === "colour") return likenessByColour(picture, shape);
  const { touched, not, tolerance, connected } = shape;
  const distance = colourDistance(picture, touched);
  const like = distance.map((away) => shareOf(away, tolerance));
  const seeds = pixelsAt(picture, touched);
  const taken = pixelsAt(picture, not);
  if (taken.length > 0) takeAway(like, picture, { distance, refused: colourDistance(picture, not), seeds, taken, tolerance });
  if (connected) reachable(like, picture, seeds).forEach((reached, i) => (like[i] = like[i]! * reached));
  return like;
}

function shareOf(distance: number, tolerance: number): number {
  return smoothStep((tolerance * (1 + SHOULDER) - distance) / (2 * SHOULDER * tolerance));
}

interface Sides {
  /** How far each pixel's colour is from those meant, and from those that are not. */
  distance: Float32Array;
  refused: Float32Array;
  /** The pixels touched on either side. */
  seeds: readonly number[];
  taken: readonly number[];
  tolerance: number;
}

/**
 * Takes away, in place, what is nearer in colour to what is not meant; where colours do not tell, what hangs together with a place that is
 * not meant and lies nearer to it than to any that is, by a way along which the colour changes little.
 */
function takeAway(like: Float32Array, picture: LabPicture, { distance, refused, seeds, taken, tolerance }: Sides): void {
  const change = changeIn(picture);
  const limit = tolerance * (1 + SHOULDER);
  const fromMeant = wayFrom(seeds, picture, (at) => like[at]! > 0, change);
  const fromTaken = wayFrom(taken, picture, (at) => like[at]! > 0 && refused[at]! <= limit, change);
  for (let i = 0; i < like.length; i++) {
    if (like[i] === 0) continue;
    const tells = smoothStep((Math.abs(distance[i]! - refused[i]!) - SAME_COLOUR) / (2 * SAME_COLOUR));
    const byPlace = fromTaken[i] === Infinity ? 1 : fromMeant[i] === Infinity ? 0 : preferred(fromMeant[i]!, fromTaken[i]!);
    like[i] = like[i]! * (tells * preferred(distance[i]!, refused[i]!) + (1 - tells) * byPlace);
  }
}

/** How much the colour changes between two pixels. */
function changeIn({ lightness, a, b }: LabPicture): (from: number, to: number) => number {
  return (from, to) => {
    const dl = LIGHTNESS_WEIGHT * (lightness[from]! - lightness[to]!);
    const da = a[from]! - a[to]!;
    const db = b[from]! - b[to]!;
    return Math.sqrt(dl * dl + da * da + db * db);
  };
}

/** As plans before version 11 have it: what is taken away is told by colour alone, and all that a flood of single pixels reaches counts. */
function likenessByColour(picture: LabPicture, { touched, not, tolerance, connected }: LikenessShape): Float32Array {
  const distance = colourDistance(picture, touched);
  const reached = connected ? flooded(distance, picture, touched, tolerance * (1 + SHOULDER)) : distance;
  const refused = not.length > 0 ? colourDistance(picture, not) : undefined;
  const like = new Float32Array(distance.length);
  for (let i = 0; i < like.length; i++) {
    const share = shareOf(reached[i]!, tolerance);
    like[i] = share === 0 || !refused ? share : share * preferred(distance[i]!, refused[i]!);
  }
  return like;
}

/** Between what is meant and what is not, the nearer decides, softly. */
function preferred(near: number, far: number): number {
  return far === Infinity ? 1 : smoothStep(0.5 + (far - near) / Math.max(near + far, 1e-6));
}

/** The colours a likeness is led by to its borders. */
export function guideOf(picture: LabPicture, { touched, tolerance }: LikenessShape): ColourGuide {
  return { colours: furthestApart(distinctColours(picture, touched), MOST_GUIDING), reach: 2 * tolerance };
}

/** Colours that lead to borders at the most. */
export const MOST_GUIDING = 12;

/** So many of some colours, each as far from those before it as there is one. Source: Gonzalez (1985), farthest-first traversal. */
function furthestApart(colours: readonly LabColour[], most: number): LabColour[] {
  if (colours.length <= most) return [...colours];
  const chosen = [colours[0]!];
  const apart = colours.map(() => Infinity);
  while (chosen.length < most) {
    colours.forEach((colour, i) => (apart[i] = Math.min(apart[i]!, distanceOf(colour, chosen.at(-1)!))));
    chosen.push(colours[apart.indexOf(Math.max(...apart))]!);
  }
  return chosen;
}

function distanceOf([l, a, b]: LabColour, [m, c, d]: LabColour): number {
  return Math.hypot(LIGHTNESS_WEIGHT * (l - m), a - c, b - d);
}

function colourDistance(picture: LabPicture, places: readonly Point[]): Float32Array {
  const { lightness, a, b } = picture;
  const colours = Float64Array.from(distinctColours(picture, places).flat());
  const out = new Float32Array(lightness.length);
  for (let i = 0; i < out.length; i++) {
    const l = lightness[i]!;
    const m = a[i]!;
    const n = b[i]!;
    let least = Infinity;
    for (let c = 0; c < colours.length; c += 3) {
      const dl = LIGHTNESS_WEIGHT * (l - colours[c]!);
      const da = m - colours[c + 1]!;
      const db = n - colours[c + 2]!;
      const square = dl * dl + da * da + db * db;
      if (square < least) least = square;
    }
    out[i] = Math.sqrt(Math.fround(least));
  }
  return out;
}

function distinctColours(picture: LabPicture, places: readonly Point[]): LabColour[] {
  const colours: LabColour[] = [];
  for (const place of places) {
    const at = pixelAt(picture, place);
    if (at === undefined) continue;
    const colour: LabColour = [picture.lightness[at]!, picture.a[at]!, picture.b[at]!];
    const isKnown = colours.some((known) => distanceOf(known, colour) < SAME_COLOUR);
    if (!isKnown) colours.push(colour);
  }
  return colours;
}

/** The pixel a place lies in; undefined outside the picture. */
function pixelAt({ width, height }: Size, { x, y }: Point): number | undefined {
  const scale = Math.max(width, height);
  const [column, row] = [Math.floor(x * scale), Math.floor(y * scale)];
  return column >= 0 && row >= 0 && column < width && row < height ? row * width + column : undefined;
}

function pixelsAt(picture: Size, places: readonly Point[]): number[] {
  return places.flatMap((place) => pixelAt(picture, place) ?? []);
}

/** The largest distance met on the best way from any seed, for every place; infinite where a way must pass `limit`. */
function flooded(distance: Float32Array, size: Size, seeds: readonly Point[], limit: number): Float32Array {
  const { width, height } = size;
  const below = width * (height - 1);
  const reached = new Float32Array(distance.length).fill(Infinity);
  const queues: number[][] = Array.from({ length: LEVELS + 1 }, () => []);
  const offer = (at: number, sofar: number) => {
    const met = Math.max(sofar, distance[at]!);
    if (met > limit || met >= reached[at]!) return;
    reached[at] = met;
    queues[Math.floor((met / limit) * LEVELS)]!.push(at);
  };
  for (const seed of seeds) {
    const at = pixelAt(size, seed);
    if (at !== undefined) offer(at, 0);
  }
  for (const queue of queues) {
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      const met = reached[next]!;
      const x = next % width;
      if (x > 0) offer(next - 1, met);
      if (x < width - 1) offer(next + 1, met);
      if (next >= width) offer(next - width, met);
      if (next < below) offer(next + width, met);
    }
  }
  return reached;
}
