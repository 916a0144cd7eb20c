import type { Pass } from "@/core/passes/pass";
import { formatZone } from "@/core/zones/zone";

/** The tones it acts on, if not all. */
export function gateWords({ gate }: Pick<Pass, "gate">): string | undefined {
  return gate ? `${formatZone(gate.from)}–${formatZone(gate.to)}` : undefined;
}
