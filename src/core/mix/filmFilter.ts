import { LUMINANCE_WEIGHTS, weightSum, type Weights } from "./weights";

// Films and filters of the trade as smooth curves over wavelengths, our own approximations of what is printed about them; and what they come to as
// weights of red, green and blue. Units: nanometres; 0–1.

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
const bell = (nm: number, at: number, below: number, above: number) => Math.exp(-0.5 * ((nm - at) / (nm < at ? below : above)) ** 2);

/** How an eye sees light of a wavelength. Source: Wyman, Sloan & Shirley, "Simple analytic approximations to the CIE XYZ color matching functions" (2013). */
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
    says: "nearly as the eye, a little lighter in blue",
    sees: (nm: number) =>
      (0.5 + 0.14 * falling(470, 70)(nm) - 0.12 * bell(nm, 505, 20, 20) + 0.35 * bell(nm, 590, 60, 42)) * falling(652, 26)(nm),
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

/** Glass by its number in the trade. */
export const FILTERS = {
  none: { name: "No filter", passes: () => 1 },
  "8": { name: "8, yellow", passes: rising(484, 40) },
  "15": { name: "15, deep yellow", passes: rising(522, 26) },
  "16": { name: "16, yellow orange", passes: rising(534, 26) },
  "21": { name: "21, orange", passes: rising(556, 26) },
  "25": { name: "25, red", passes: rising(600, 22) },
  "29": { name: "29, deep red", passes: rising(622, 22) },
  "11": { name: "11, yellow green", passes: (nm: number) => 0.85 * both(rising(470, 60), falling(628, 90))(nm) },
  "58": { name: "58, green", passes: (nm: number) => 0.75 * both(rising(497, 28), falling(568, 32))(nm) },
  "47": { name: "47, blue", passes: (nm: number) => 0.7 * both(rising(392, 24), falling(482, 34))(nm) },
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
  /** By how many stops one exposes longer for the filter. */
  factor: number;
}

/** Less of the light than this that a film sees is none to expose by, in stops. */
const MOST_FACTOR = 9;

/** A film behind a filter as weights. Undefined where the filter leaves nothing that the film sees. */
export function sensitised(film: FilmName, filter: FilterName): Sensitised | undefined {
  const { sees } = FILMS[film];
  const { passes } = FILTERS[filter];
  const seen = bands(sees);
  const left = bands(both(sees, passes));
  const factor = Math.log2(weightSum(seen) / weightSum(left));
  if (!(factor < MOST_FACTOR)) return undefined;
  const sum = weightSum(left);
  return { weights: { red: left.red / sum, green: left.green / sum, blue: left.blue / sum }, factor: Math.max(factor, 0) };
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
 * The primaries' light as parts of even light: blue up to a wavelength, red from another on, green between. Where they meet is found such that the eye reads
 * plain luminance from them.
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
  const sum = (of: Spectrum) => WAVELENGTHS.reduce((total, nm) => total + of(nm), 0);
  return sum(both(eye, light)) / sum(eye);
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
