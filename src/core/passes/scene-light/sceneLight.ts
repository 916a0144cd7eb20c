import type { SceneLightMove } from "./move";

/** The tone of the surroundings up to which shadows end, and from which lights begin. */
export const SHADOWS_TO = 0.5;
export const LIGHTS_FROM = 0.5;
/** How far around a place its surroundings are gathered, as a part of the long edge. */
export const SCENE_RADIUS = 0.03;

/** Stops a place gets by the tone of its surroundings, beside the exposure of all. */
export function sceneStops({ shadows, lights }: Pick<SceneLightMove, "shadows" | "lights">, around: number): number {
  return shadows * eased(1 - around / SHADOWS_TO) + lights * eased((around - LIGHTS_FROM) / (1 - LIGHTS_FROM));
}

/** From 0 at 0 to 1 at 1, level at both. */
function eased(v: number): number {
  const u = Math.min(Math.max(v, 0), 1);
  return u * u * (3 - 2 * u);
}
