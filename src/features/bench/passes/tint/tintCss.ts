import { linearP3ToCss } from "@/core/colour/oklchToP3";
import { toneToLuminance } from "@/core/colour/lstar";
import { tonesOfColour, type Chroma } from "@/core/colour/printColour";
import type { Vector3 } from "@/core/colour/matrix3";
import type { TintPoint } from "@/core/passes/tint/move";
import { tintLine } from "@/core/passes/tint/tintLine";
import { LAST_ZONE } from "@/core/zones/zone";
import type { Zone } from "@/core/units";

/** Colour on a zone, as it is printed. */
export function tintCss(zone: Zone, chroma: Chroma): string {
  const channels = tonesOfColour(zone / LAST_ZONE, chroma, "display-p3").map(toneToLuminance) as unknown as Vector3;
  return linearP3ToCss(channels);
}

/** Places along the zones at which a line of colour is drawn. */
const PLACES = Array.from({ length: 21 }, (_, k) => (k / 20) * LAST_ZONE);

/** A line of colour over the zones: what it lays and how it is printed, place by place. */
export function tintPlaces(points: readonly TintPoint[]): { zone: Zone; chroma: Chroma; css: string }[] {
  const line = tintLine(points);
  return PLACES.map((zone) => ({ zone, chroma: line(zone), css: tintCss(zone, line(zone)) }));
}

/** The same as a strip. */
export function tintStrip(points: readonly TintPoint[]): string {
  return `linear-gradient(to right, ${tintPlaces(points)
    .map(({ css }) => css)
    .join(", ")})`;
}
