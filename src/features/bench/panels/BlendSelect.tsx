"use client";
import { Select } from "antd";
import { useRef } from "react";
import { BLEND_MODES, type BlendMode } from "@/core/blend/blend";
import type { Pass } from "@/core/plan/plan";
import { useBench } from "../state/BenchContext";
import { withPass } from "../state/inPlan";
import styles from "./Panel.module.css";

const OPTIONS = BLEND_MODES.map((value) => ({ value, label: value[0]!.toUpperCase() + value.slice(1).replace("-", " ") }));

/** How a pass meets what is beneath; each mode is seen in the picture while it is pointed at. */
export function BlendSelect({ pass }: { pass: Pass }) {
  const { store } = useBench();
  /** The mode to go back to while the list is open. */
  const kept = useRef<BlendMode | undefined>(undefined);
  const show = (mode: BlendMode) => store.getState().adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, blend: mode })));
  const onOpenChange = (isOpen: boolean) => {
    if (isOpen) kept.current = pass.blend;
    else if (kept.current) {
      show(kept.current);
      kept.current = undefined;
    }
  };
  const onSelect = (mode: BlendMode) => {
    kept.current = undefined;
    show(mode);
    store.getState().commit(`${pass.name} meets the print by ${mode.replace("-", " ")}`);
  };
  return (
    <div className={styles.row}>
      <span className={styles.rowLabel}>Blend</span>
      <Select
        size="small"
        className={styles.grow}
        aria-label="Blend"
        options={OPTIONS}
        value={pass.blend}
        onOpenChange={onOpenChange}
        onSelect={onSelect}
        onActive={(mode) => kept.current && show(mode as BlendMode)}
        virtual={false}
        listHeight={340}
      />
    </div>
  );
}
