"use client";
import type { MoveKind } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { actsOnColour } from "@/core/passes/passKinds";
import { Menu } from "@/features/shared/Menu";
import { useBench } from "../state/BenchContext";
import { addPass } from "./addPassEdit";
import { MOVE_KINDS, PASS_FACES } from "../passes/passFaces";
import styles from "./PlanRibbon.module.css";

/** Adds a pass after the one in hand: fresh, or with the settings of the last one of its kind. */
export function AddPass({ passes }: { passes: readonly Pass[] }) {
  const { store } = useBench();
  const lastOf = (kind: MoveKind) => passes.findLast(({ move }) => move.kind === kind);
  const add = (kind: MoveKind, like: Pass | undefined) => addPass(store, kind, like);
  const offersOf = (kinds: readonly MoveKind[]) =>
    kinds.flatMap((kind) => {
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
  const isOfColour = (kind: MoveKind) => actsOnColour({ kind });
  const offers = [
    {
      type: "group" as const,
      key: "before",
      label: <span className={styles.side}>Before the mix</span>,
      children: offersOf(MOVE_KINDS.filter(isOfColour)),
    },
    {
      type: "group" as const,
      key: "after",
      label: <span className={styles.side}>After the mix</span>,
      children: offersOf(MOVE_KINDS.filter((kind) => !isOfColour(kind))),
    },
  ];
  return (
    <Menu items={offers}>
      <button type="button" className={styles.add} data-testid="add-pass">
        Add a pass
      </button>
    </Menu>
  );
}
