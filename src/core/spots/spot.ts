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

/** Equal keys cover the same in the same way. */
export function spotKey({ kind, path, radius, softness, from }: Spot): string {
  return `${kind} ${path} ${radius} ${softness} ${from.x} ${from.y}`;
}

export const MOST_SPOTS = 2000;
/** In long edges: half a pixel of a large picture, and a tenth of any. */
export const LEAST_SPOT = 0.0001;
export const MOST_SPOT = 0.1;
/** A longer scratch goes on in another spot. */
export const MOST_SPOT_POINTS = 400;
