import { apply3, transpose3, type Matrix3 } from "../colour/matrix3";
import { P3_LUMINANCE } from "../colour/primaries";

/** How much of linear R, G and B goes into the tone. Units: −2…2 each. */
export interface Weights {
  red: number;
  green: number;
  blue: number;
}
export type Channel = keyof Weights;
export const CHANNELS = ["red", "green", "blue"] as const satisfies readonly Channel[];
export const WEIGHT_LIMIT = 2;

/** The weights that give plain luminance: what the eye sees as light. */
export const LUMINANCE_WEIGHTS: Weights = {
  red: P3_LUMINANCE[0],
  green: P3_LUMINANCE[1],
  blue: P3_LUMINANCE[2],
};

/** How much each of a source's channels gives to luminance. `toP3`: its channels to linear P3. */
export function lightIn(toP3: Matrix3): Weights {
  const { red, green, blue } = LUMINANCE_WEIGHTS;
  const [r, g, b] = apply3(transpose3(toP3), [red, green, blue]);
  return { red: r, green: g, blue: b };
}

/** Whether colours of one light come to different tones: any weights but those of the light itself. */
export function readsColour(weights: Weights): boolean {
  return CHANNELS.some((channel) => weights[channel] !== LUMINANCE_WEIGHTS[channel]);
}

export function weightSum({ red, green, blue }: Weights): number {
  return red + green + blue;
}

/**
 * Sets one weight. With the sum held, the two others give way in equal shares so that the sum
 * stays 1 and neutrals keep their tone; where they reach a limit, the one being set stops.
 */
export function setWeight(weights: Weights, channel: Channel, value: number, sumHeld: boolean): Weights {
  const wanted = clampWeight(value);
  if (!sumHeld) return { ...weights, [channel]: wanted };
  const [first, second] = CHANNELS.filter((other) => other !== channel) as [Channel, Channel];
  const rest = 1 - wanted;
  const half = (rest - weights[first] - weights[second]) / 2;
  const newFirst = clampWeight(weights[first] + half);
  const newSecond = clampWeight(rest - newFirst);
  const mendedFirst = clampWeight(rest - newSecond);
  return { ...weights, [first]: mendedFirst, [second]: newSecond, [channel]: 1 - mendedFirst - newSecond };
}

function clampWeight(value: number): number {
  return Math.min(Math.max(value, -WEIGHT_LIMIT), WEIGHT_LIMIT);
}

/**
 * Whether a mix stays between black and white for every colour a source holds, so that nothing needs to bend.
 *
 * Shape   toP3: the source's channels to linear P3.
 */
export function staysWithin({ red, green, blue }: Weights, toP3: Matrix3): boolean {
  const parts = [0, 1, 2].map((channel) => red * toP3[channel]! + green * toP3[channel + 3]! + blue * toP3[channel + 6]!);
  const isInside = [red, green, blue].every((weight) => weight >= 0) && toP3.every((cell) => cell >= -ROUNDING);
  return isInside && parts.reduce((sum, part) => sum + part, 0) <= 1 + ROUNDING;
}
const ROUNDING = 1e-6;
