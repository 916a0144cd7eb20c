import { linearP3ToCss, oklchToLinearP3 } from "@/core/colour/oklchToP3";

/** A hue as it is drawn, all of them equally light and coloured. */
export function hueCss(hueDeg: number): string {
  return linearP3ToCss(oklchToLinearP3({ lightness: 0.68, chroma: 0.13, hueDeg }));
}
