import { passesBeforeMix } from "@/core/plan/editPasses";
import type { Plan } from "@/core/plan/plan";

/** How a pass is told by its place: after the mix by a number from 1, before it by a letter from A. */
export function passNumber(plan: Pick<Plan, "passes">, index: number): string {
  const mix = passesBeforeMix(plan);
  return index < mix ? letters(index) : String(index - mix + 1);
}

/** A to Z, then AA, AB. */
function letters(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : letters(Math.floor(index / 26) - 1) + last;
}

/** What a pass comes after: the picture as found, the mix, or another pass. */
export function afterWhat(plan: Pick<Plan, "passes">, index: number): string {
  if (index === passesBeforeMix(plan)) return "the mix";
  return index === 0 ? "the colour as found" : `pass ${passNumber(plan, index - 1)}`;
}

/** How a pass or a set is told in a sentence, by its id. */
export function placeName(plan: Pick<Plan, "passes" | "sets">, id: string): string {
  const at = plan.passes.findIndex((pass) => pass.id === id);
  return at < 0 ? plan.sets.find((set) => set.id === id)!.name : `pass ${passNumber(plan, at)}`;
}
