import { formatGrade } from "@/core/passes/contrast/contrastCurve";
import { isHold } from "@/core/passes/placement/strand";
import type { ExposureMove } from "@/core/passes/exposure/move";
import type { Pass } from "@/core/plan/plan";
import { formatStops, formatZone } from "@/core/zones/zone";
import { formatPercent } from "@/features/shared/ValueSlider";
import { MOVE_NAMES } from "./moveNames";

/** The tones it acts on, if not all. */
export function gateWords({ gate }: Pass): string | undefined {
  return gate ? `${formatZone(gate.from)}–${formatZone(gate.to)}` : undefined;
}

/** What a pass does, as short as it can be said. */
export function passWords({ move, blend }: Pass): string {
  const how = blend === "normal" ? "" : `, ${blend.replace("-", " ")}`;
  switch (move.kind) {
    case "exposure":
      return `${exposureWords(move)}${how}`;
    case "edge-burn":
      return `Edges ${formatStops(move.stops)}${how}`;
    case "contrast":
      return `Grade ${formatGrade(move.grade)}${how}`;
    case "contrast-mask":
      return `Mask ${formatPercent(move.density)}${how}`;
    case "placement": {
      const moved = move.strands.filter((strand) => !isHold(strand));
      const furthest = moved.toSorted((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from))[0];
      return `${furthest ? `${formatZone(furthest.from)} → ${formatZone(furthest.to)}` : MOVE_NAMES.placement}${how}`;
    }
  }
}

/** What is exposed most: all of it, a zone, or what was painted. */
function exposureWords({ flat, zones, strokes }: ExposureMove): string {
  const furthest = zones.reduce((most, stops, zone) => (Math.abs(stops) > Math.abs(zones[most]!) ? zone : most), 0);
  if (flat !== 0) return `All ${formatStops(flat)}`;
  if (zones[furthest] !== 0) return `${formatZone(furthest)} ${formatStops(zones[furthest]!)}`;
  return strokes.length > 0 ? `${strokes.length} ${strokes.length === 1 ? "stroke" : "strokes"}` : "Exposure";
}
