"use client";
import type { MoveKind, Pass } from "@/core/plan/plan";
import { Menu } from "@/features/shared/Menu";
import { useBench, useBenchState } from "../state/BenchContext";
import { settledPlan } from "../state/benchStore";
import { addPass } from "./addPassEdit";
import { MOVE_KINDS, PASS_FACES } from "../passes/passFaces";
import styles from "./PlanRibbon.module.css";

/** Adds a pass after the one in hand: fresh, or with the settings of the last one of its kind. */
export function AddPass() {
  const { store } = useBench();
  const passes = useBenchState((state) => settledPlan(state).passes);
  const lastOf = (kind: MoveKind) => passes.findLast(({ move }) => move.kind === kind);
  const add = (kind: MoveKind, like: Pass | undefined) => addPass(store, kind, like);
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
