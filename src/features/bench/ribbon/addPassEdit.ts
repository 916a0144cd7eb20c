import type { MoveKind } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { v4 as uuid } from "uuid";
import { restingPass } from "@/core/plan/defaultPlan";
import { freshPassName, insertPass, movePass } from "@/core/plan/editPasses";
import { PASS_FACES } from "../passes/passFaces";
import type { BenchStore } from "../state/benchStore";
import { chosenPass } from "../state/inPlan";

/**
 * Adds a pass after the one in hand, or before all others of its side where it belongs there, and takes it in hand: fresh, or with the
 * settings of another.
 */
export function addPass(store: BenchStore, kind: MoveKind, like?: Pass): void {
  const { plan, set } = store.getState();
  const fresh = restingPass(kind, uuid(), freshPassName(plan, PASS_FACES[kind].name));
  const pass = like ? { ...structuredClone(like), id: fresh.id, name: fresh.name, on: true, set: null } : fresh;
  const put = insertPass(plan, pass, chosenPass(store.getState())?.pass.id);
  // A place beyond the ends of its side counts as the end.
  const grown = put && PASS_FACES[kind].beginsWith ? movePass(put, pass.id, 0) : put;
  if (!grown) return set({ failure: "A plan holds no more passes than these." });
  store.getState().adjust(() => grown);
  store.getState().chooseStep({ stage: "pass", id: pass.id });
  store.getState().commit(like ? `${pass.name} added, as ${like.name}` : `${pass.name} added`);
}
