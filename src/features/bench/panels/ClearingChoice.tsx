"use client";
import { Segmented } from "antd";
import { useBench, useBenchState } from "../state/BenchContext";
import styles from "./Panel.module.css";

/** What a loop clears. */
export function ClearingChoice() {
  const { store } = useBench();
  const clearing = useBenchState((state) => state.clearing);
  return (
    <>
      <Segmented
        size="small"
        block
        aria-label="What the loop clears"
        options={[
          { value: "both", label: "Both" },
          { value: "dodge", label: "○ Dodging" },
          { value: "burn", label: "● Burning" },
        ]}
        value={clearing}
        onChange={(chosen) => store.getState().set({ clearing: chosen as typeof clearing })}
      />
      <p className={styles.hint}>Draw a loop in the picture. What was painted from within it goes; soft edges may still reach in.</p>
    </>
  );
}
