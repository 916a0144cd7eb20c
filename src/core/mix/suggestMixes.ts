import type { Planes } from "../kernels/planes";
import { luminanceToTone } from "../colour/lstar";
import { oklabPlanes } from "../colour/oklab";
import { hueName } from "./hueCurve";
import { LUMINANCE_WEIGHTS, type Weights } from "./weights";

/** A mix that keeps a picture's colours apart as tones. */
export interface SuggestedMix {
  weights: Weights;
  /** The hues of the picture it makes lightest and darkest, against how light they are. */
  lighter: string;
  darker: string;
  /** How much of the colour contrasts it keeps, 0–1. */
  kept: number;
}

/** Pairs each place makes with others of the picture. */
const PARTNERS = 14;
/** Nearer than this in OKLab, two places are one colour. */
const LEAST_APART = 0.04;
/** Fewer pairs that differ in more than lightness are no colours to speak of. */
const FEWEST_COLOURED = 0.01;
/** A difference of OKLab in one of tone: what lightness is to neutrals (CIE 1976, 116 of 100). */
const TO_TONE = 1.16;
/** A contrast that is off by so much in tone counts as kept by three fifths. */
const TOLERANCE = 0.1;
/** Weights that are tried: from and to, in steps. */
const [LEAST, MOST, STEP] = [-0.5, 1.5, 0.125];
const MOST_MIXES = 6;
/** Mixes nearer to one another than this, in the mean of tones, are one; where too few are left, the next. */
const DIFFERENT = [0.03, 0.015] as const;
const FEWEST_MIXES = 4;
/** Chroma from which a place speaks for its hue. */
const COLOURED = 0.03;

/**
 * A few mixes of red, green and blue under which what differs in colour differs in tone, the best first, each other enough from all before
 * it to be worth a look. None for a picture without colour.
 *
 * Shape   planes of a small picture: some hundreds of places are enough. Units: linear Display P3. Weights add up to 1, so that neutrals
 *         stay.
 * Source  after Lu, Xu & Jia, "Contrast preserving decolorization" (2012): the contrast of two places counts as kept whichever of them
 *         becomes the lighter.
 */
export function suggestMixes(colours: Planes): SuggestedMix[] {
  const contrast = contrasts(colours);
  if (!contrast) return [];
  const plain = tonesOf(colours, LUMINANCE_WEIGHTS);
  const tried = candidates().map((weights) => {
    const tones = tonesOf(colours, weights);
    return { weights, tones, kept: contrast(tones) };
  });
  tried.sort((a, b) => b.kept - a.kept);
  let chosen: typeof tried = [];
  for (const different of DIFFERENT) {
    chosen = [];
    for (const mix of tried) {
      const isOther = [plain, ...chosen.map(({ tones }) => tones)].every((tones) => meanApart(tones, mix.tones) >= different);
      if (isOther && chosen.length < MOST_MIXES) chosen.push(mix);
    }
    if (chosen.length >= FEWEST_MIXES) break;
  }
  return chosen.map(({ weights, tones, kept }) => ({ weights, kept, ...moved(colours, plain, tones) }));
}

/** How much of a picture's colour contrasts a mix keeps, 0–1; undefined where it has none. */
export function contrastKept(colours: Planes): ((weights: Weights) => number) | undefined {
  const contrast = contrasts(colours);
  return contrast && ((weights) => contrast(tonesOf(colours, weights)));
}

/** Asks tones how much they keep of how far places are apart in colour. */
function contrasts({ red, green, blue }: Planes): ((tones: Float64Array) => number) | undefined {
  const count = red.length;
  const { lightness, a, b } = oklabPlanes(red, green, blue);
  const pairs: { one: number; other: number; apart: number }[] = [];
  let coloured = 0;
  let seed = 1;
  for (let one = 0; one < count; one++) {
    for (let k = 0; k < PARTNERS; k++) {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      const other = Math.floor((seed / 2 ** 32) * count);
      const inColour = Math.hypot(a[one]! - a[other]!, b[one]! - b[other]!);
      const apart = Math.hypot(lightness[one]! - lightness[other]!, inColour);
      if (apart < LEAST_APART) continue;
      if (inColour >= LEAST_APART) coloured++;
      pairs.push({ one, other, apart: TO_TONE * apart });
    }
  }
  if (coloured < FEWEST_COLOURED * count * PARTNERS) return undefined;
  return (tones) => {
    let kept = 0;
    for (const { one, other, apart } of pairs) {
      const off = (Math.abs(tones[one]! - tones[other]!) - apart) / TOLERANCE;
      kept += Math.exp(-0.5 * off * off);
    }
    return kept / pairs.length;
  };
}

/** Tones under weights; what would be darker than black or lighter than paper is that, and so loses its contrast. */
function tonesOf({ red, green, blue }: Planes, weights: Weights): Float64Array {
  return Float64Array.from(red, (r, i) =>
    luminanceToTone(Math.min(Math.max(weights.red * r + weights.green * green[i]! + weights.blue * blue[i]!, 0), 1)),
  );
}

function candidates(): Weights[] {
  const values = Array.from({ length: (MOST - LEAST) / STEP + 1 }, (_, k) => LEAST + k * STEP);
  return values.flatMap((red) =>
    values.map((green) => ({ red, green, blue: 1 - red - green })).filter(({ blue }) => blue >= LEAST && blue <= MOST),
  );
}

function meanApart(one: Float64Array, other: Float64Array): number {
  return one.reduce((sum, tone, i) => sum + Math.abs(tone - other[i]!), 0) / one.length;
}

/** The hues that become lightest and darkest against what they were. */
function moved({ red, green, blue }: Planes, before: Float64Array, after: Float64Array): Pick<SuggestedMix, "lighter" | "darker"> {
  const { a, b } = oklabPlanes(red, green, blue);
  const hues = new Map<string, { by: number; weight: number }>();
  for (let i = 0; i < red.length; i++) {
    const chroma = Math.hypot(a[i]!, b[i]!);
    if (chroma < COLOURED) continue;
    const name = hueName((Math.atan2(b[i]!, a[i]!) * 180) / Math.PI);
    const hue = hues.get(name) ?? { by: 0, weight: 0 };
    hues.set(name, { by: hue.by + chroma * (after[i]! - before[i]!), weight: hue.weight + chroma });
  }
  const ranked = [...hues].map(([name, { by, weight }]) => ({ name, by: by / weight })).sort((x, y) => y.by - x.by);
  return { lighter: ranked[0]?.name ?? "", darker: ranked.at(-1)?.name ?? "" };
}
