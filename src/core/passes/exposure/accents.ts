import type { ExposureStroke } from "../../steps/placedStops";
import { falloffAt } from "../../brush/falloff";
import { packPath } from "../../brush/stroke";
import { areaReduceRows, fitLongEdge, type Size } from "../../spatial/areaReduce";
import { gaussianBlur } from "../../spatial/gaussianBlur";

export const LEAST_ACCENT = 0.008;
export const MOST_ACCENT = 0.1;
/** The strongest accent, in stops. */
const MOST_STOPS = 1 / 3;
/** Lights and darks of the scale are what is left between a blur of it and one this much wider. */
const WIDER = 3;
/** Differences from the surroundings count fully from this many times their usual size on. */
const USUAL_TIMES = 1.5;
/** A picture whose lights and darks differ less than this from their surroundings, in tone, has none. */
const LEAST_DIFFERENCE = 0.002;
/** Cells to the scale. */
const CELLS_IN_SCALE = 3;
/** Brushes tried for each accent, their radii in scales. */
const RADII = [3.2, 2, 1.3] as const;
const MOST_ACCENTS = 250;
/** What is left to be laid is left be below this part of the strongest. */
const LEAST_PART = 0.2;

/**
 * A map of dodging and burning from the picture's own lights and darks: what is lighter than its surroundings a little lighter, what
 * is darker a little darker. It is laid with a soft brush, a dab at a time where most of it is still missing, so that each is a stroke like
 * any other.
 *
 * Shape   tone of `size`, 0–1. Units: scale in long edges, LEAST_ACCENT to MOST_ACCENT.
 * Source  band of scale space: Lindeberg, "Feature detection with automatic scale selection" (1998); dabs one after the
 *         other: Mallat & Zhang, "Matching pursuits" (1993).
 */
export function accents(tone: Float32Array, size: Size, scale: number): ExposureStroke[] {
  const small = fitLongEdge(size, Math.ceil(CELLS_IN_SCALE / scale));
  const wanted = accentMap(areaReduceRows(tone, 0, size, small, 0, small.height), small, scale * Math.max(small.width, small.height));
  return [false, true].flatMap((burns) =>
    laidWithDabs(
      wanted.map((stops) => Math.max(burns ? -stops : stops, 0)),
      small,
      scale,
      burns,
    ),
  );
}

/** Stops wanted: the band of lights and darks at a scale, bounded softly. Units: sigma in cells. */
export function accentMap(tone: Float32Array, size: Size, sigma: number): Float32Array {
  const [near, around] = [gaussianBlur(tone, size, sigma / 2), gaussianBlur(tone, size, WIDER * sigma)];
  const band = near.map((t, i) => t - around[i]!);
  const usual = Math.sqrt(band.reduce((sum, d) => sum + d * d, 0) / band.length);
  if (usual < LEAST_DIFFERENCE) return band.fill(0);
  return band.map((d) => MOST_STOPS * Math.tanh(d / (USUAL_TIMES * usual)));
}

function laidWithDabs(wanted: Float32Array, size: Size, scale: number, burns: boolean): ExposureStroke[] {
  const { width } = size;
  const long = Math.max(size.width, size.height);
  const laid = new Float32Array(wanted.length);
  const strokes: ExposureStroke[] = [];
  const least = LEAST_PART * wanted.reduce((most, stops) => Math.max(most, stops), 0);
  while (strokes.length < MOST_ACCENTS) {
    let place = -1;
    let missing = least;
    for (let i = 0; i < wanted.length; i++) {
      if (wanted[i]! - laid[i]! > missing) [place, missing] = [i, wanted[i]! - laid[i]!];
    }
    if (place < 0) return strokes;
    const [x, y] = [(place % width) + 0.5, Math.floor(place / width) + 0.5];
    const ceiling = wanted[place]!;
    const tried = RADII.map((times) => dab(laid, size, x, y, times * scale * long, ceiling));
    const gains = tried.map((cells) => cells.reduce((sum, [i, to]) => sum + (wanted[i]! - laid[i]!) ** 2 - (wanted[i]! - to) ** 2, 0));
    const best = gains.indexOf(Math.max(...gains));
    for (const [i, to] of tried[best]!) laid[i] = to;
    laid[place] = ceiling; // the middle of the dab lies between the cells: it is not asked for again
    strokes.push({
      radius: RADII[best]! * scale,
      hardness: 0,
      flow: 1,
      pressure: "none",
      erase: false,
      burns,
      ceiling,
      path: packPath([{ x: x / long, y: y / long, pressure: 1 }]),
    });
  }
  return strokes;
}

/** The cells a soft dab changes, and what they become. */
function dab(laid: Float32Array, { width, height }: Size, x: number, y: number, radius: number, goal: number): [number, number][] {
  const cells: [number, number][] = [];
  for (let row = Math.max(Math.floor(y - radius), 0); row < Math.min(y + radius, height); row++) {
    for (let column = Math.max(Math.floor(x - radius), 0); column < Math.min(x + radius, width); column++) {
      const share = falloffAt(Math.hypot(column + 0.5 - x, row + 0.5 - y) / radius, 0);
      const i = row * width + column;
      if (share > 0) cells.push([i, laid[i]! + (goal - laid[i]!) * share]);
    }
  }
  return cells;
}
