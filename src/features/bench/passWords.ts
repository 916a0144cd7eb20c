import { formatGrade } from "@/core/contrast/contrastCurve";
import { isHold } from "@/core/placement/strand";
import type { Pass } from "@/core/plan/plan";
import { formatZone } from "@/core/zones/zone";
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
