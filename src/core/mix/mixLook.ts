import { pairTable } from "../kernels/pairTable";
import { hueCurve, type HueKnot } from "./hueCurve";
import { CHANNELS, LUMINANCE_WEIGHTS, readsColour, type Weights } from "./weights";

/** How colour becomes tone: weights in linear light, then the hue response. */
export interface MixLook {
  weights: Weights;
  /** Whether setting one weight moves the others so that neutrals stay. */
  sumHeld: boolean;
  /** Whether the hue response applies. */
  huesOn: boolean;
  /** Ordered by hue. */
  hueKnots: HueKnot[];
}

/** A mix as the kernels take it. */
export interface CompiledMix {
  weights: Weights;
  /** Stops over hue in turns; absent where no hue is moved. */
  hueTable: Float32Array | undefined;
}

const HUE_KNOTS = 1440;

/** The stops of a hue line over hue in turns, so many times as strong; absent where no hue is moved. */
export function hueTableOf({ huesOn, hueKnots }: Pick<MixLook, "huesOn" | "hueKnots">, strength = 1): Float32Array | undefined {
  if (!huesOn || strength === 0 || hueKnots.every((knot) => knot.stops === 0)) return undefined;
  const curve = hueCurve(hueKnots);
  return pairTable(HUE_KNOTS, (turn) => strength * curve(turn * 360));
}

/** Weights as far from those of the eye as a strength says: 0 those of the eye, 1 as they are, 2 twice as far. */
export function weightsAt(weights: Weights, strength: number): Weights {
  if (strength === 1) return weights;
  const away = (channel: keyof Weights) => LUMINANCE_WEIGHTS[channel] + strength * (weights[channel] - LUMINANCE_WEIGHTS[channel]);
  const [red, green, blue] = CHANNELS.map(away) as [number, number, number];
  return { red, green, blue };
}

/** Whether colours of one light come to different tones. */
export function partsColours({ weights, hueTable }: CompiledMix): boolean {
  return hueTable !== undefined || readsColour(weights);
}
