import type { TintPoint } from "./move";

/** A tint to begin with. */
export interface ReadyTint {
  name: string;
  /** What it is like. */
  words: string;
  points: readonly TintPoint[];
}

const over = (zones: readonly number[], hueDeg: number, chroma: number): TintPoint[] => zones.map((zone) => ({ zone, hueDeg, chroma }));

/** Our own approximations of what toners and papers of the darkroom give; not measured ones. */
export const READY_TINTS: readonly ReadyTint[] = [
  {
    name: "Selenium",
    words: "Cool plum in the darks, lights left alone",
    points: [...over([1.5, 3.5], 345, 0.02), ...over([6], 345, 0.004)],
  },
  { name: "Sepia", words: "Warm brown, fullest in the lights", points: [...over([2], 62, 0.022), ...over([5, 8], 74, 0.045)] },
  { name: "Thiourea", words: "Deeper, redder brown through all zones", points: over([1.5, 5, 8], 50, 0.055) },
  { name: "Gold", words: "Cold blue-black, faint", points: [...over([2, 5], 262, 0.018), ...over([8], 255, 0.008)] },
  { name: "Iron blue", words: "Clear blue through all zones", points: over([1.5, 4, 8], 252, 0.06) },
  {
    name: "Copper",
    words: "Red-brown, warmest in the middle",
    points: [...over([2], 30, 0.03), ...over([5], 38, 0.05), ...over([8], 45, 0.03)],
  },
  { name: "Platinum", words: "Hardly warm, even from end to end", points: over([1, 5, 9], 72, 0.01) },
  {
    name: "Split",
    words: "Warm lights over cool darks",
    points: [...over([2], 258, 0.025), ...over([4.75], 300, 0.004), ...over([7.5], 72, 0.032)],
  },
];
