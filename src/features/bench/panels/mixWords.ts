import type { MixLook } from "@/core/mix/mixLook";
import { CHANNELS, LUMINANCE_WEIGHTS } from "@/core/mix/weights";

/** What a mix does, as short as it can be said. */
export function mixWords({ weights, huesOn, hueKnots }: MixLook): string {
  const plain = CHANNELS.every((channel) => Math.abs(weights[channel] - LUMINANCE_WEIGHTS[channel]) < 1e-4);
  const moved = huesOn ? hueKnots.filter((knot) => knot.stops !== 0).length : 0;
  const hues = moved ? `${moved} hue${moved > 1 ? "s" : ""}` : undefined;
  return [plain ? (hues ? undefined : "As the eye sees") : "Weights", hues].filter(Boolean).join(", ");
}
