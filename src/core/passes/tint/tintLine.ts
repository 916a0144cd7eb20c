import type { Chroma } from "../../colour/printColour";
import { oklabToLch } from "../../colour/oklab";
import { curveThrough } from "../../curves/cubic";
import { LAST_ZONE } from "../../zones/zone";
import { LEAST_TINT_GAP, MOST_TINT_CHROMA, MOST_TINT_POINTS, type TintPoint } from "./move";
import type { Zone } from "../../units";

/** A hue and chroma of OKLCH as a and b of OKLab. */
export function chromaOfHue({ hueDeg, chroma }: Pick<TintPoint, "hueDeg" | "chroma">): Chroma {
  const angle = (hueDeg * Math.PI) / 180;
  return { a: chroma * Math.cos(angle), b: chroma * Math.sin(angle) };
}

/** The other way round. */
export function hueOfChroma({ a, b }: Chroma): Pick<TintPoint, "hueDeg" | "chroma"> {
  const { hueDeg, chroma } = oklabToLch([0, a, b]);
  return { hueDeg, chroma };
}

/**
 * The colour a tint lays over the zones: smooth through its points, from one hue to another straight across, none at 0 and X unless a point
 * lies there.
 *
 * Units   zones in; a, b of OKLab out.
 */
export function tintLine(points: readonly TintPoint[]): (zone: Zone) => Chroma {
  const placed = points.map((point) => ({ zone: point.zone, ...chromaOfHue(point) }));
  const none = (zone: Zone) => (placed.some((point) => point.zone === zone) ? [] : [{ zone, a: 0, b: 0 }]);
  const all = [...none(0), ...placed, ...none(LAST_ZONE)];
  const [a, b] = (["a", "b"] as const).map((name) => curveThrough(all.map((point) => ({ x: point.zone, y: point[name] })))) as [
    (zone: Zone) => number,
    (zone: Zone) => number,
  ];
  return (zone) => ({ a: a(zone), b: b(zone) });
}

/** A point put in where the line runs now, or the one that is there; undefined index where no more fit. */
export function addTintPoint(points: readonly TintPoint[], zone: Zone): { points: TintPoint[]; index: number | undefined } {
  const near = points.findIndex((point) => Math.abs(point.zone - zone) < LEAST_TINT_GAP);
  if (near >= 0) return { points: [...points], index: near };
  if (points.length >= MOST_TINT_POINTS) return { points: [...points], index: undefined };
  const here = hueOfChroma(tintLine(points)(zone));
  const nearest = points.toSorted((p, q) => Math.abs(p.zone - zone) - Math.abs(q.zone - zone))[0];
  const added = { zone, chroma: here.chroma, hueDeg: here.chroma > 1e-4 ? here.hueDeg : (nearest?.hueDeg ?? 0) };
  const joined = [...points, added].sort((p, q) => p.zone - q.zone);
  return { points: joined, index: joined.indexOf(added) };
}

/** A point moved; it stops short of its neighbours' zones and at the ends of scale and chroma. */
export function moveTintPoint(points: readonly TintPoint[], index: number, to: Partial<TintPoint>): TintPoint[] {
  const low = index === 0 ? 0 : points[index - 1]!.zone + LEAST_TINT_GAP;
  const high = index === points.length - 1 ? LAST_ZONE : points[index + 1]!.zone - LEAST_TINT_GAP;
  const { zone, hueDeg, chroma } = { ...points[index]!, ...to };
  const moved = {
    zone: Math.min(Math.max(zone, low), high),
    hueDeg: ((hueDeg % 360) + 360) % 360,
    chroma: Math.min(Math.max(chroma, 0), MOST_TINT_CHROMA),
  };
  return points.map((point, i) => (i === index ? moved : point));
}
