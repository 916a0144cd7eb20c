import type { Crop, Frame } from "@/core/frame/frame";
import { seenDegrees } from "@/core/frame/editFrame";

/** Proportions a print may be kept to, long side over short; "picture" are the picture's own, "own" those that are typed. */
export const RATIOS = [
  { name: "free", words: "Free" },
  { name: "picture", words: "As the picture" },
  { name: "3:2", words: "3 : 2", ratio: 3 / 2 },
  { name: "4:3", words: "4 : 3", ratio: 4 / 3 },
  { name: "5:4", words: "5 : 4", ratio: 5 / 4 },
  { name: "1:1", words: "1 : 1", ratio: 1 },
  { name: "16:9", words: "16 : 9", ratio: 16 / 9 },
  { name: "a", words: "A paper, √2 : 1", ratio: Math.SQRT2 },
  { name: "own", words: "Own" },
] as const;
export type RatioName = (typeof RATIOS)[number]["name"];

/** Lines over the print while it is framed. */
export const GUIDES = [
  { name: "none", words: "None" },
  { name: "thirds", words: "Thirds" },
  { name: "diagonals", words: "Diagonals" },
] as const;
export type GuideName = (typeof GUIDES)[number]["name"];

/** How the next crop is kept: its proportions and which way they lie, and the lines drawn over it. */
export interface Framing {
  ratio: RatioName;
  /** Width over height, where they are the own ones. */
  own: number;
  isUpright: boolean;
  guide: GuideName;
}

export const MOST_RATIO = 10;

/** Width over height that a crop is kept to; undefined where it is free. */
export function ratioOf({ ratio, own, isUpright }: Framing, picture: { width: number; height: number }): number | undefined {
  if (ratio === "free") return undefined;
  const long = (wide: number) => Math.max(wide, 1 / wide);
  const found = RATIOS.find(({ name }) => name === ratio);
  const wide = long(ratio === "picture" ? picture.width / picture.height : found && "ratio" in found ? found.ratio : own);
  return isUpright ? 1 / wide : wide;
}

/** Proportions as they are typed: 7:5, 7/5, 1.4 or 1,4; undefined where they mean nothing. */
export function parseRatio(text: string): number | undefined {
  const parts = text
    .trim()
    .replaceAll(",", ".")
    .split(/[:/×x]/);
  const numbers = parts.map((part) => (/^\s*\d*\.?\d+\s*$/.test(part) ? Number(part) : NaN));
  const ratio = numbers.length === 1 ? numbers[0]! : numbers.length === 2 ? numbers[0]! / numbers[1]! : NaN;
  return ratio >= 1 / MOST_RATIO && ratio <= MOST_RATIO ? ratio : undefined;
}

/** What a frame does, as short as it can be said. */
export function frameWords(frame: Frame): string {
  const degrees = seenDegrees(frame);
  const words = [
    frame.turns === 0 ? undefined : frame.turns === 2 ? "Upside down" : "Turned",
    degrees === 0 ? undefined : formatDegrees(degrees),
    frame.mirrored ? "Mirrored" : undefined,
    frame.crop ? formatCrop(frame.crop) : undefined,
  ].filter(Boolean);
  return words.join(", ") || "Whole picture";
}

export function formatDegrees(degrees: number): string {
  return `${degrees < 0 ? "−" : ""}${Math.abs(degrees).toFixed(1)}°`;
}

function formatCrop({ width, height }: Crop): string {
  const known = RATIOS.find((each) => "ratio" in each && Math.abs(Math.max(width / height, height / width) / each.ratio - 1) < 0.002);
  return known && known.name !== "a" ? `Cut ${known.name}` : "Cut";
}
