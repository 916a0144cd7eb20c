import type { SharpenSettings } from "./sharpen";

export const OUTPUT_SHARPENINGS = ["none", "gentle", "strong"] as const;
export type OutputSharpening = (typeof OUTPUT_SHARPENINGS)[number];

/** A last sharpening for the size of a file. Units: radius in pixels of the output, a standard deviation. */
export type ForOutput = Omit<SharpenSettings, "radius"> & { pixels: number };

/** What reducing and printing soften lies within a pixel or two, whatever the size: gentle for a screen or a smooth paper, strong for a rough one. */
export function sharpeningFor(output: OutputSharpening): ForOutput | undefined {
  const held = { pixels: 0.7, threshold: 0.008, lighter: 0.05, darker: 0.07 };
  switch (output) {
    case "none":
      return undefined;
    case "gentle":
      return { ...held, amount: 0.5 };
    case "strong":
      return { ...held, pixels: 1, amount: 1.1 };
  }
}
