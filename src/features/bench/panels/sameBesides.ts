import type { Confined, Pass } from "@/core/passes/pass";

// While a hand moves, only what shows the moved value draws: parts of a panel that show something else are told apart from it here.

/** Whether two stand for the same thing, confined alike. */
export function sameConfined(one: Confined, other: Confined): boolean {
  return one.id === other.id && one.name === other.name && one.region === other.region && one.gate === other.gate;
}

/** Whether two differ in nothing but the settings of a move of one kind. */
export function sameBesidesMove(one: Pass, other: Pass): boolean {
  const keys = Object.keys(one) as (keyof Pass)[];
  return one.move.kind === other.move.kind && keys.every((key) => key === "move" || one[key] === other[key]);
}
