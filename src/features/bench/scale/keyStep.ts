import { LAST_ZONE } from "@/core/zones/zone";
import type { Zone } from "@/core/units";

const STEP = 0.05;
const COARSE_STEP = 0.5;

/**
 * By how many zones a key moves what stands at one: arrows in small steps, with Shift in large ones, Home and End to the ends. Undefined
 * for other keys.
 */
export function keyStep({ key, shiftKey }: { key: string; shiftKey: boolean }, zone: Zone): number | undefined {
  const step = shiftKey ? COARSE_STEP : STEP;
  if (key === "ArrowRight" || key === "ArrowUp") return step;
  if (key === "ArrowLeft" || key === "ArrowDown") return -step;
  if (key === "Home") return -zone;
  return key === "End" ? LAST_ZONE - zone : undefined;
}
