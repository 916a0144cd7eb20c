"use client";
import { Button, Segmented } from "antd";
import { useBench, useBenchState } from "../state/BenchContext";
import type { Before } from "../state/benchStore";
import { chosenPass, chosenSet } from "../state/inPlan";
import styles from "./Easel.module.css";

/** Says on the picture that it is not the print as it is, and what instead. */
export function BeforeSign() {
  const { store } = useBench();
  const before = useBenchState((state) => state.before);
  const isHeld = useBenchState((state) => state.beforeSince !== undefined || state.look.kind === "zone");
  const step = useBenchState(
    (state) => (chosenPass(state)?.pass ?? chosenSet(state))?.name ?? (state.step.stage === "finish" ? "all passes" : "the mix"),
  );
  if (!before) return null;
  const words: Record<Before, string> = { step: `Before ${step}`, mix: "Straight mix", source: "Colour" };
  return (
    <div className={styles.sign} data-testid="before-sign" role="status">
      {isHeld ? (
        <span className={styles.signWords}>{words[before]}</span>
      ) : (
        <>
          <Segmented
            size="small"
            aria-label="Compare with"
            options={(["step", "mix", "source"] as const).map((value) => ({ value, label: words[value] }))}
            value={before}
            onChange={(chosen) => store.getState().set({ before: chosen })}
          />
          <Button size="small" onClick={() => store.getState().set({ before: undefined })}>
            Back to the print
          </Button>
        </>
      )}
    </div>
  );
}
