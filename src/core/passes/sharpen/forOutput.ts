import type { Tone } from "../../units";
import type { SharpenSettings } from "./sharpen";

export const OUTPUT_SHARPENINGS = ["none", "gentle", "strong"] as const;
export type OutputSharpening = (typeof OUTPUT_SHARPENINGS)[number];

/** A last sharpening for the size of a file. Units: pixels of the output, a standard deviation. */
export interface ForOutput extends Omit<SharpenSettings, "radius"> {
  pixels: number;
  /** It acts where the tones around slope: from so much a pixel on, and fully from so much. */
  slopes: readonly [from: Tone, to: Tone];
}

/**
 * What reducing and printing soften lies within a pixel or two, whatever the size: gentle for a screen or a smooth paper, strong for a
 * rough one. Grain differs from what is around it as much as a soft edge does, so that no threshold tells them apart; but the mean around
 * hardly slopes there. At a deviation of 0.01 it becomes 1.05 and 1.15 times as strong at the most.
 */
export function sharpeningFor(output: OutputSharpening): ForOutput | undefined {
  const held = { threshold: 0, lighter: 0.05, darker: 0.07 };
  switch (output) {
    case "none":
      return undefined;
    case "gentle":
      return { ...held, pixels: 0.7, amount: 0.5, slopes: [0.006, 0.016] };
    case "strong":
      return { ...held, pixels: 1, amount: 1.1, slopes: [0.003, 0.01] };
  }
}

/** How far it acts, 0–1, where the mean tone around rises by so much along and across, a pixel. */
export function actsAtSlope([from, to]: ForOutput["slopes"], along: Tone, across: Tone): number {
  const square = along * along + across * across;
  if (square <= from * from) return 0;
  const u = Math.min((Math.sqrt(square) - from) / (to - from), 1);
  return u * u * (3 - 2 * u);
}
