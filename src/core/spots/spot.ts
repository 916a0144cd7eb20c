import type { Point } from "../region/region";
import type { Length } from "../units";

export const SPOT_KINDS = ["heal", "clone"] as const;

/** Something on the picture that does not belong there, covered with what lies elsewhere on it. */
export interface Spot {
  id: string;
  /** Whether what covers it takes on the light of where it is laid, or is laid as it is. */
  kind: (typeof SPOT_KINDS)[number];
  /** Where it is: one place, or the way along a scratch. See packPath. */
  path: string;
  /** How far it reaches to either side, in long edges. */
  radius: Length;
  /** The part of the radius over which its edge fades, 0–1. */
  softness: number;
  /** How far away lies what covers it, in long edges. */
  from: Point;
}

/** A spot as a hand draws it: within its size all is covered, and so far beyond it, as a part of it, that fades. */
export interface Drawn {
  /** A radius, in long edges. */
  size: Length;
  fade: number;
}

/** How a spot is kept that covers all of what is drawn, and fades beyond it. */
export function reachOf({ size, fade }: Drawn): Pick<Spot, "radius" | "softness"> {
  return { radius: size * (1 + fade), softness: fade / (1 + fade) };
}

/** What a spot covers all of, and how far beyond it fades; the inverse. Softer than 1/2, it fades further than it is large. */
export function drawnOf({ radius, softness }: Pick<Spot, "radius" | "softness">): Drawn {
  const hard = Math.max(1 - softness, 1e-3);
  return { size: radius * hard, fade: softness / hard };
}

/** Equal keys cover the same in the same way. */
export function spotKey({ kind, path, radius, softness, from }: Spot): string {
  return `${kind} ${path} ${radius} ${softness} ${from.x} ${from.y}`;
}

export const MOST_SPOTS = 2000;
/** How far a spot fades at the most, as a part of its size, and at rest. */
export const MOST_FADE = 1;
export const RESTING_FADE = 0.3;
/** In long edges: half a pixel of a large picture, and a tenth of any. */
export const LEAST_SPOT = 0.0001;
export const MOST_SPOT = 0.1;
/** A longer scratch goes on in another spot. */
export const MOST_SPOT_POINTS = 400;
