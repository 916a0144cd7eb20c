import { toneToLuminance } from "../../colour/lstar";
import type { Tone } from "../../units";

/** How much is added to what the picture has of each size of detail: −1 takes all of it away, 2 makes it three times as strong. */
export interface ReliefSettings {
  fine: number;
  medium: number;
  broad: number;
}

export const LEAST_RELIEF = -1;
export const MOST_RELIEF = 2;

/**
 * The sizes, finest first: the detail of each is what its surroundings level that those of the finer one leave.
 *
 * Units   standard deviation of the surroundings, in long edges.
 */
export const RELIEF_SIZES = [
  { name: "fine", radius: 0.004 },
  { name: "medium", radius: 0.016 },
  { name: "broad", radius: 0.064 },
] as const satisfies readonly { name: keyof ReliefSettings; radius: number }[];

/** Stray light, as a part of white: without it the grain of black and of paper would be endlessly many stops. */
const FLARE = 0.005;

/**
 * Where a tone lies on the scale that exposure shifts it along, in stops: log2(Y ∕ (1 − Y)). Differences on it are detail as the light made
 * it, as strong in shadow as in light, and scaled there they reach neither black nor white.
 *
 * Units   tone 0–1 in; rising, within ±7.7.
 * Source  docs/decisions/0021-relief.md.
 */
export function oddsOf(tone: Tone): number {
  const y = toneToLuminance(tone);
  return Math.log2((y + FLARE) / (1 - y + FLARE));
}

/**
 * Stops that scale detail, as shares of the odds of the place and of its surroundings in each size: what is added to a size
 * counts the surroundings of the finer one and takes away its own. They sum to 0: a level place stays.
 */
export function reliefShares({ fine, medium, broad }: ReliefSettings): { own: number; around: [number, number, number] } {
  return { own: fine, around: [medium - fine, broad - medium, -broad] };
}
