import { softened } from "../../blend/atStrength";
import { hermite, slopeBetween } from "../../curves/cubic";
import { LAST_ZONE } from "../../zones/zone";
import { isHold, type Strand } from "./strand";
import type { Zone } from "../../units";

/** A map of the zone scale onto itself. Units: zones 0–10 in and out. */
export type PlacementCurve = (zone: Zone) => Zone;

/**
 * Where every tone goes when some are placed by strands: monotone cubic interpolation between
 * them, level beyond the outermost. Never a wiggle, never a reversal; strands are met exactly.
 *
 * Shape   strands ordered: strictly increasing `from`, non-decreasing `to`.
 * Units   zones 0–10.
 * Source  Fritsch & Carlson, "Monotone piecewise cubic interpolation" (1980); slopes at the
 *         strands are the weighted harmonic mean of Fritsch & Butland (1984), which needs no
 *         second sweep: docs/decisions/0003-placement-curve.md.
 */
export function placementCurve(strands: readonly Strand[]): PlacementCurve {
  const slopes = strandSlopes(strands);
  const first = strands[0]!;
  const last = strands[strands.length - 1]!;
  return (zone) => {
    if (zone <= first.from) return first.to;
    if (zone >= last.from) return last.to;
    let i = 0;
    while (zone > strands[i + 1]!.from) i++;
    return between(strands[i]!, strands[i + 1]!, slopes[i]!, slopes[i + 1]!, zone);
  };
}

function between(a: Strand, b: Strand, slopeA: number, slopeB: number, zone: Zone): number {
  const y = hermite({ x: a.from, y: a.to }, { x: b.from, y: b.to }, slopeA, slopeB, zone);
  return Math.min(Math.max(y, a.to), b.to); // rounding only: the cubic itself stays between
}

/** Slopes at the strands that keep every piece monotone. */
function strandSlopes(strands: readonly Strand[]): number[] {
  const widths: number[] = [];
  const secants: number[] = [];
  for (let i = 0; i + 1 < strands.length; i++) {
    widths.push(strands[i + 1]!.from - strands[i]!.from);
    secants.push((strands[i + 1]!.to - strands[i]!.to) / widths[i]!);
  }
  return strands.map((_, i) => {
    if (i === 0) return endSlope(secants[0]!, secants[1], widths[0]!, widths[1]);
    if (i === strands.length - 1) return endSlope(secants[i - 1]!, secants[i - 2], widths[i - 1]!, widths[i - 2]);
    return slopeBetween(secants[i - 1]!, secants[i]!, widths[i - 1]!, widths[i]!);
  });
}

/** Three-point slope at an end, held between 0 and three secants so that the piece stays monotone. */
function endSlope(near: number, next: number | undefined, width: number, nextWidth: number | undefined): number {
  if (next === undefined || nextWidth === undefined) return near;
  const slope = ((2 * width + nextWidth) * near - width * next) / (width + nextWidth);
  return Math.min(Math.max(slope, 0), 3 * near);
}

/**
 * The strands at a strength beyond 1: every move goes further by that factor, nears the ends of the scale, or a hold on the way, without
 * reaching them, and stops at the strand below, so the order of tones is kept. Holds stay, and so do strands placed at the ends.
 */
export function strengthenStrands(strands: readonly Strand[], strength: number): Strand[] {
  const holds = strands.filter(isHold).map(({ to }) => to);
  let floor = 0;
  return strands.map((strand) => {
    const { from, to } = strand;
    if (isHold(strand)) return { from, to: (floor = to) };
    const further = (strength - 1) * (to - from);
    const end = further > 0 ? (holds.find((hold) => hold >= to) ?? LAST_ZONE) : (holds.findLast((hold) => hold <= to) ?? 0);
    floor = Math.max(to + Math.sign(further) * softened(Math.abs(further), Math.abs(end - to)), floor);
    return { from, to: floor };
  });
}

/**
 * The placement at a strength: 0 changes nothing, 1 is the curve itself, in between a plain mixture,
 * beyond (to 2) the strands themselves go further. Monotone at every strength.
 */
export function placementAtStrength(strands: readonly Strand[], strength: number): PlacementCurve {
  if (strength > 1) return placementCurve(strengthenStrands(strands, strength));
  const curve = placementCurve(strands);
  return (zone) => zone + strength * (curve(zone) - zone);
}
