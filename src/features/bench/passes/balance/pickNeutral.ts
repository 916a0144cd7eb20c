import type { Pass } from "@/core/passes/pass";
import type { Vector3 } from "@/core/colour/matrix3";
import { balanceFor } from "@/core/passes/balance/balance";
import type { BenchStore } from "../../state/benchStore";
import { withMove } from "../../state/inPlan";

/** Balances so that a colour becomes grey; says why where it cannot. */
export function pickNeutral(store: BenchStore, { id, name }: Pass, colour: Vector3): string | undefined {
  const found = balanceFor(colour);
  if ("refused" in found) {
    const why = found.refused === "dark" ? "too dark to tell its tinge" : "burnt out, so that its tinge is lost";
    return `This place is ${why}. Nothing was changed; touch another one.`;
  }
  const { mired, tint, isReached } = found;
  const { adjust, commit, set } = store.getState();
  adjust((plan) => withMove(plan, id, { kind: "balance", mired: Math.round(mired), tint: Math.round(tint) }));
  commit(`Neutral picked in ${name}`);
  if (!isReached) set({ notice: "That place is too colourful to become grey; it was brought as near as the balance goes." });
  return undefined;
}
