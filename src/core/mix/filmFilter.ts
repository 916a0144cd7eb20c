import { LUMINANCE_WEIGHTS, weightSum, type Weights } from "./weights";

// Films and filters of the trade as smooth curves over wavelengths, our own approximations of what is printed about them; and what they
// come to as weights of red, green and blue. Units: nanometres; 0–1.

const FROM = 380;
const TO = 720;
const STEP = 2;
/** Wavelengths at which all curves are read. */
export const WAVELENGTHS: readonly number[] = Array.from({ length: (TO - FROM) / STEP + 1 }, (_, k) => FROM + k * STEP);

type Spectrum = (nm: number) => number;

/** 0 below a wavelength, 1 above it, half at it; `width` from an eighth to seven eighths, about. */
const rising = (at: number, width: number): Spectrum => {
  return (nm) => 1 / (1 + Math.exp((-4 * (nm - at)) / width));
};
const falling = (at: number, width: number): Spectrum => {
  const rises = rising(at, width);
  return (nm) => 1 - rises(nm);
};
const both = (one: Spectrum, other: Spectrum): Spectrum => {
  return (nm) => one(nm) * other(nm);
};
/** A smooth curve through points: even steps of what is printed as a logarithm, level at each point and beyond the ends. */
const throughPoints = (...points: readonly (readonly [nm: number, value: number])[]): Spectrum => {
  return (nm) => {
    const next = points.findIndex(([at]) => at > nm);
    if (next <= 0) return points.at(next)![1];
    const [[from, low], [to, high]] = [points[next - 1]!, points[next]!];
    const u = (nm - from) / (to - from);
    return low * (high / low) ** (u * u * (3 - 2 * u));
  };
};
const bell = (nm: number, at: number, below: number, above: number) => Math.exp(-0.5 * ((nm - at) / (nm < at ? below : above)) ** 2);

/**
 * How an eye sees light of a wavelength. Source: Wyman, Sloan & Shirley, "Simple analytic approximations to the CIE XYZ color matching
 * functions" (2013).
 */
export const eye: Spectrum = (nm) => 0.821 * bell(nm, 568.8, 46.9, 40.5) + 0.286 * bell(nm, 530.9, 16.3, 31.1);

export const FILMS = {
  blue: { name: "Blue-sensitive", says: "as the first plates: skies white, reds black", sees: falling(488, 46) },
  ortho: {
    name: "Orthochromatic",
    says: "blind to red: dark lips and bricks, light foliage",
    sees: (nm: number) => Math.max(0.8 * falling(470, 60)(nm), bell(nm, 548, 62, 24)) * falling(592, 26)(nm),
  },
  pan: {
    name: "Panchromatic",
    says: "all colours, blue and violet far lighter than the eye: a yellow filter makes up for it",
    // Such that filters of the trade cost it what is printed of them: see FILTERS.
    sees: throughPoints([400, 0.75], [440, 0.74], [480, 0.56], [520, 1], [560, 0.44], [600, 0.35], [640, 0.23], [670, 0.05], [700, 0.004]),
  },
  red: {
    name: "Extended red",
    says: "sees further into red: light skin, dark skies",
    sees: (nm: number) => (0.45 + 0.3 * falling(470, 60)(nm) + 0.55 * bell(nm, 660, 90, 40)) * falling(704, 22)(nm),
  },
} as const satisfies Record<string, Film>;
export type FilmName = keyof typeof FILMS;

interface Film {
  name: string;
  says: string;
  sees: Spectrum;
}

/** What a glass lets through at its best. */
const CLEAR = 0.9;
const clearFrom =
  (at: number, width: number): Spectrum =>
  (nm) =>
    CLEAR * rising(at, width)(nm);

/**
 * Glass by its number in the trade. With the panchromatic film they cost, within a third of a stop, what tables print of films of that
 * kind: in daylight 8: 1, 15: 1⅓, 16: 1⅔, 21: 2⅓, 25: 3, 29: 4, 11: 2, 58 and 47:
 * 2⅔; in tungsten light ⅔, ⅔, 1, 1⅔, 2⅓, 3, 1⅔, 2⅔, 3⅓ (fitted by least squares: docs/decisions/0002-mix.md).
 */
export const FILTERS = {
  none: { name: "No filter", passes: () => 1 },
  "8": { name: "8, yellow", passes: clearFrom(485, 40) },
  "15": { name: "15, deep yellow", passes: clearFrom(517.5, 26) },
  "16": { name: "16, yellow orange", passes: clearFrom(533.9, 26) },
  "21": { name: "21, orange", passes: clearFrom(557.1, 26) },
  "25": { name: "25, red", passes: clearFrom(590, 22) },
  "29": { name: "29, deep red", passes: clearFrom(619.5, 22) },
  "11": { name: "11, yellow green", passes: (nm: number) => 0.54 * both(rising(480, 50), falling(600, 90))(nm) },
  "58": { name: "58, green", passes: (nm: number) => 0.43 * both(rising(497, 28), falling(568, 32))(nm) },
  "47": { name: "47, blue", passes: (nm: number) => 0.46 * both(rising(392, 24), falling(482, 34))(nm) },
} as const satisfies Record<string, Filter>;
export type FilterName = keyof typeof FILTERS;

interface Filter {
  name: string;
  passes: Spectrum;
}

/** What a film behind a filter makes of light. */
export interface Sensitised {
  /** Their sum is 1. */
  weights: Weights;
  /** By how many stops one exposes longer for the filter, by what light. */
  factor: Record<LightName, number>;
}

/** Glowing bodies stand for the light of day and of photographic lamps, by their temperature. Units: kelvin. */
const LIGHT_KELVIN = { daylight: 5500, tungsten: 3200 } as const;
type LightName = keyof typeof LIGHT_KELVIN;

/** Planck's radiation over wavelength, in no unit of its own. */
const glowing =
  (kelvin: number): Spectrum =>
  (nm) =>
    (560 / nm) ** 5 / (Math.exp(1.4387769e7 / (nm * kelvin)) - 1);

/** Less of the light than this that a film sees is none to expose by, in stops. */
const MOST_FACTOR = 9;

const found = new Map<string, Sensitised | undefined>();

/** A film behind a filter as weights. Undefined where the filter leaves nothing that the film sees. Reckoned once. */
export function sensitised(film: FilmName, filter: FilterName): Sensitised | undefined {
  const key = `${film} ${filter}`;
  if (!found.has(key)) found.set(key, reckoned(film, filter));
  return found.get(key);
}

function reckoned(film: FilmName, filter: FilterName): Sensitised | undefined {
  const { sees } = FILMS[film];
  const { passes } = FILTERS[filter];
  const left = bands(both(sees, passes));
  const sum = weightSum(left);
  const factorIn = (light: LightName) => {
    const lit = both(both(lens, sees), glowing(LIGHT_KELVIN[light]));
    return Math.max(Math.log2(sumOver(lit) / sumOver(both(lit, passes))), 0);
  };
  const factor = { daylight: factorIn("daylight"), tungsten: factorIn("tungsten") };
  if (!(factor.daylight < MOST_FACTOR)) return undefined;
  return { weights: { red: left.red / sum, green: left.green / sum, blue: left.blue / sum }, factor };
}

function sumOver(spectrum: Spectrum): number {
  return WAVELENGTHS.reduce((total, nm) => total + spectrum(nm), 0);
}

/** The glass of a lens lets no shorter light through. */
const lens = rising(396, 24);

/** How much of what is seen lies in the light of each primary; even light is all of them together. */
function bands(sees: Spectrum): Weights {
  const weights = { red: 0, green: 0, blue: 0 };
  for (const nm of WAVELENGTHS) {
    const seen = lens(nm) * sees(nm);
    const [blue, red] = [LIGHTS.blue(nm), LIGHTS.red(nm)];
    weights.red += seen * red;
    weights.green += seen * (1 - red - blue);
    weights.blue += seen * blue;
  }
  return weights;
}

/** How softly the light of one primary goes over into the next's. */
const CROSSING = 40;

/**
 * The primaries' light as parts of even light: blue up to a wavelength, red from another on, green between. Where they meet is found such
 * that the eye reads plain luminance from them.
 */
const LIGHTS = {
  blue: falling(
    meeting((at) => shareSeen(falling(at, CROSSING)) - LUMINANCE_WEIGHTS.blue),
    CROSSING,
  ),
  red: rising(
    meeting((at) => LUMINANCE_WEIGHTS.red - shareSeen(rising(at, CROSSING))),
    CROSSING,
  ),
};

function shareSeen(light: Spectrum): number {
  return sumOver(both(eye, light)) / sumOver(eye);
}

/** Where a rising function of wavelength is 0. */
function meeting(off: (nm: number) => number): number {
  let [low, high] = [FROM, TO];
  for (let k = 0; k < 50; k++) {
    const middle = (low + high) / 2;
    if (off(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
