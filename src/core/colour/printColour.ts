import { luminanceToTone, toneToLuminance } from "./lstar";
import { apply3, IDENTITY3, invert3, multiply3, transpose3, type Matrix3, type Vector3 } from "./matrix3";
import { LMS_TO_LAB, P3_TO_LMS } from "./oklab";
import { P3_LUMINANCE, SRGB_TO_P3 } from "./primaries";
import type { Tone } from "../units";

/** What a print's colours may be written in: by channels under D65 with the curve of IEC 61966-2-1. */
export const OUTPUT_SPACES = ["srgb", "display-p3"] as const;
export type OutputSpace = (typeof OUTPUT_SPACES)[number];

/** Linear channels of each to linear Display P3. */
export const OUTPUT_TO_P3: Record<OutputSpace, Matrix3> = { srgb: SRGB_TO_P3, "display-p3": IDENTITY3 };

const LMS_TO_P3 = invert3(P3_TO_LMS);
const LAB_TO_LMS = invert3(LMS_TO_LAB);
/** What cone responses give to luminance. */
const LMS_LIGHT = apply3(transpose3(LMS_TO_P3), P3_LUMINANCE);

/** A colour's a and b in OKLab; the tone it is laid on gives its luminance. */
export interface Chroma {
  a: number;
  b: number;
}

/** Numbers the kernels of `as/chroma.ts` need to make a space's channels, in their order. */
export function chromaConstants(space: OutputSpace): readonly number[] {
  const fromP3 = invert3(OUTPUT_TO_P3[space]);
  const fromAb = [0, 1, 2].flatMap((row) => [LAB_TO_LMS[3 * row + 1]!, LAB_TO_LMS[3 * row + 2]!]);
  const light = apply3(transpose3(OUTPUT_TO_P3[space]), P3_LUMINANCE);
  return [...P3_TO_LMS, ...LMS_TO_LAB, ...fromAb, ...LMS_LIGHT, ...multiply3(fromP3, LMS_TO_P3), ...light];
}
export const CHROMA_CONSTANTS = chromaConstants("srgb").length;

/**
 * The linear channels of a colour whose luminance is that of a tone, at the lightness at which it has that; below 0 and over 1 where the
 * space cannot show it.
 *
 * Source  OKLab: Ottosson (2020). Its luminance is a cubic in the lightness, Σ yᵢ (L + kᵢ)³, solved by Newton's steps.
 */
export function lightOfColour(tone: Tone, { a, b }: Chroma, space: OutputSpace): Vector3 {
  const light = toneToLuminance(tone);
  const k = [0, 1, 2].map((row) => LAB_TO_LMS[3 * row + 1]! * a + LAB_TO_LMS[3 * row + 2]! * b);
  const made = (L: number) => k.reduce((sum, by, i) => sum + LMS_LIGHT[i]! * (L + by) ** 3, 0);
  const slope = (L: number) => k.reduce((sum, by, i) => sum + 3 * LMS_LIGHT[i]! * (L + by) ** 2, 0);
  let L = Math.cbrt(light);
  for (let step = 0; step < 8; step++) L -= (made(L) - light) / Math.max(slope(L), 1e-4);
  const lms = k.map((by) => (L + by) ** 3) as unknown as Vector3;
  return apply3(multiply3(invert3(OUTPUT_TO_P3[space]), LMS_TO_P3), lms);
}

/**
 * The tones of a space's channels, as if each were a grey's, of a colour laid on a tone. A colour the space cannot show gives way in its
 * chroma, at its hue, never in its luminance.
 *
 * Units   0–1 all.
 */
export function tonesOfColour(tone: Tone, chroma: Chroma, space: OutputSpace): Vector3 {
  if (chroma.a === 0 && chroma.b === 0) return [tone, tone, tone];
  const shown = (share: number) => lightOfColour(tone, { a: share * chroma.a, b: share * chroma.b }, space);
  const isWithin = (light: Vector3) => light.every((channel) => channel >= 0 && channel <= 1);
  let [most, over] = isWithin(shown(1)) ? [1, 1] : [0, 1];
  while (over - most > 1e-6) {
    const middle = (most + over) / 2;
    if (isWithin(shown(middle))) most = middle;
    else over = middle;
  }
  return shown(most).map(luminanceToTone) as unknown as Vector3;
}
