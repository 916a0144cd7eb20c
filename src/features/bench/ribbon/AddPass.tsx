"use client";
import { v4 as uuid } from "uuid";
import { restingPass } from "@/core/plan/defaultPlan";
import { freshPassName, insertPass } from "@/core/plan/editPasses";
import type { MoveKind, Pass } from "@/core/plan/plan";
import { Menu } from "@/features/shared/Menu";
import { useBench, useBenchState } from "../state/BenchContext";
import { chosenPass, settledPlan } from "../state/benchStore";
import { MOVE_KINDS, PASS_FACES } from "../passes/passFaces";
import styles from "./PlanRibbon.module.css";

/** Adds a pass after the one in hand: fresh, or with the settings of the last one of its kind. */
export function AddPass() {
  const { store } = useBench();
  const passes = useBenchState((state) => settledPlan(state).passes);
  const lastOf = (kind: MoveKind) => passes.findLast(({ move }) => move.kind === kind);
  const add = (kind: MoveKind, like: Pass | undefined) => {
    const { plan } = store.getState();
    const fresh = restingPass(kind, uuid(), freshPassName(plan, PASS_FACES[kind].name));
    const pass = like ? { ...structuredClone(like), id: fresh.id, name: fresh.name, on: true, set: null } : fresh;
    const grown = insertPass(plan, pass, chosenPass(store.getState())?.pass.id);
    if (!grown) return store.getState().set({ failure: "A plan holds no more passes than these." });
    store.getState().adjust(() => grown);
    store.getState().set({ step: { stage: "pass", id: pass.id }, chosenStrands: [] });
    store.getState().commit(like ? `${pass.name} added, as ${like.name}` : `${pass.name} added`);
  };
  const offers = MOVE_KINDS.flatMap((kind) => {
    const last = lastOf(kind);
    const fresh = {
      key: kind as string,
      label: (
        <span className={styles.offer}>
          <b>{PASS_FACES[kind].name}</b> {PASS_FACES[kind].purpose}
        </span>
      ),
      onClick: () => add(kind, undefined),
    };
    const again = last && {
      key: `${kind} again`,
      label: (
        <span className={styles.offer}>
          <b /> as in “{last.name}”
        </span>
      ),
      onClick: () => add(kind, last),
    };
    return again ? [fresh, again] : [fresh];
  });
  return (
    <Menu items={offers}>
      <button type="button" className={styles.add} data-testid="add-pass">
        Add a pass
      </button>
    </Menu>
  );
}
