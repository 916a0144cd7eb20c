import { planBefore } from "@/core/plan/editPasses";
import type { Place } from "@/engine/messages/messages";
import { faceOf } from "../passes/passFaces";
import type { Bench } from "../state/BenchContext";
import { PATCH_REACH } from "../state/benchStore";
import { chosenPass } from "../state/inPlan";
import type { ColourPick } from "./tools";

/** Picks the colour that enters the pass in hand at a place, for what the tool is for; then puts the tool down. */
export async function pickColour({ store, engine }: Pick<Bench, "store" | "engine">, tool: ColourPick, place: Place): Promise<void> {
  const { plan, patch } = store.getState();
  const chosen = chosenPass(store.getState());
  if (!chosen) return;
  const colour = await engine()?.colourAt(planBefore(plan, chosen.index), place, PATCH_REACH[patch]);
  // The hand may be elsewhere by then.
  const now = chosenPass(store.getState());
  if (!colour || now?.pass.id !== chosen.pass.id) return;
  const { pass } = now;
  const failure = faceOf(pass.move).pickColour?.(store, { pass, move: pass.move }, tool, colour);
  if (failure) store.getState().set({ failure });
  else store.getState().putDown();
}
