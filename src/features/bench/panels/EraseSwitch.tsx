"use client";
import { Switch } from "antd";
import { useBench, useBenchState } from "../state/BenchContext";
import styles from "./Panel.module.css";

/** Turns the hand round, as Alt does while it is held: for pens and fingers, which hold no key. */
export function EraseSwitch({ words }: { words: string }) {
  const { store } = useBench();
  const erases = useBenchState((state) => state.drawing.erase);
  const setErase = (erase: boolean) => store.getState().set({ drawing: { ...store.getState().drawing, erase } });
  return (
    <div className={styles.row}>
      <Switch size="small" checked={erases} aria-label="Erase" onChange={setErase} />
      <span className={styles.hint}>{words}</span>
    </div>
  );
}
