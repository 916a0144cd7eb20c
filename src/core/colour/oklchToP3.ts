import { apply3, invert3, type Vector3 } from "./matrix3";
import { LMS_TO_LAB, P3_TO_LMS } from "./oklab";
import { srgbEncode } from "./transferCurve";

const LAB_TO_LMS = invert3(LMS_TO_LAB);
const LMS_TO_P3 = invert3(P3_TO_LMS);

/** Linear Display P3 of an OKLCH colour; may lie outside 0–1 for colours P3 does not hold. */
export function oklchToLinearP3({ lightness, chroma, hueDeg }: { lightness: number; chroma: number; hueDeg: number }): Vector3 {
  const angle = (hueDeg * Math.PI) / 180;
  const [l, m, s] = apply3(LAB_TO_LMS, [lightness, chroma * Math.cos(angle), chroma * Math.sin(angle)]);
  return apply3(LMS_TO_P3, [l ** 3, m ** 3, s ** 3]);
}

/** A CSS colour (CSS Color 4, display-p3) for a linear Display P3 one, clipped to what P3 holds. */
export function linearP3ToCss(rgb: Vector3): string {
  const [r, g, b] = rgb.map((v) => srgbEncode(Math.min(Math.max(v, 0), 1)).toFixed(4));
  return `color(display-p3 ${r} ${g} ${b})`;
}
