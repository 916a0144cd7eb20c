"use client";
import { parsePercent } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { useState } from "react";
import { LEAST_ACCENT, MOST_ACCENT } from "@/core/passes/exposure/accents";
import type { ExposureMove } from "@/core/passes/exposure/move";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { isSuggested, suggestAccents } from "./accentEdits";
import { useBench, useBenchState } from "../../state/BenchContext";
import styles from "../../panels/Panel.module.css";

/**
 * Offers a map of the picture's own lights and darks at a size of one's choice; as long as nobody painted on it, another size lays it anew.
 */
export function Accents({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const { store, engine } = useBench();
  const scale = useBenchState((state) => state.accentScale);
  const [isAsking, setAsking] = useState(false);
  const isFresh = isSuggested(move);
  const suggest = async () => {
    const asked = engine();
    if (!asked) return;
    setAsking(true);
    await suggestAccents(store, asked, pass.id);
    setAsking(false);
  };
  const onSized = () => void (isFresh && suggest());
  return (
    <>
      <ValueSlider
        label="Size of forms"
        value={scale}
        min={LEAST_ACCENT}
        max={MOST_ACCENT}
        step={0.001}
        rest={0.03}
        format={(value) => `${(100 * value).toFixed(1)} %`}
        parse={parsePercent}
        onChange={(value) => store.getState().set({ accentScale: value })}
        onSettled={onSized}
      />
      <div className={styles.row}>
        <Button size="small" loading={isAsking} onClick={() => void suggest()}>
          {isFresh ? "Suggest again" : "Suggest modelling"}
        </Button>
      </div>
      <p className={styles.hint}>
        {isFresh
          ? "Each of them is a stroke: pick, change or delete any. Strength weakens all."
          : "Lights of this size a little lighter, darks a little darker, laid in as strokes at half strength."}
      </p>
    </>
  );
}
