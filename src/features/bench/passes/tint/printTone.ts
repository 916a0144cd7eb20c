import type { Pass } from "@/core/passes/pass";

/** Whether a pass, the last one, tones all of the print: a tint that nothing confines. */
export function isPrintTone({ move, region, gate, zonesOff, set }: Pass): boolean {
  return move.kind === "tint" && region === null && gate === null && zonesOff.length === 0 && set === null;
}
