"use client";
import type { Confined } from "@/core/passes/pass";
import { Button } from "antd";
import { useBench } from "../state/BenchContext";
import styles from "./Panel.module.css";

/** Sends the mask of a pass or a set to the exports, as a 16-bit PNG at full size. */
export function MaskExport({ of }: { of: Confined }) {
  const { start, store } = useBench();
  const onExport = async () => {
    store.getState().commitPending();
    const { history, set } = store.getState();
    const response = await fetch(`/api/prints/${start.print.id}/exports`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ settings: { format: "png16", maskOf: of.id }, revision: history.head }),
    }).catch(() => undefined);
    if (response?.ok) set({ notice: `The mask of ${of.name} is being made; it is listed under Finish.` });
    else set({ failure: "The mask could not be exported just now. Nothing is lost; try again in a moment." });
  };
  return (
    <div className={styles.row}>
      <Button size="small" title="A 16-bit PNG: white acts, black does not" onClick={() => void onExport()}>
        Export its mask
      </Button>
    </div>
  );
}
