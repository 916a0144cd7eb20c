"use client";
import type { Pass } from "@/core/passes/pass";
import { Select } from "antd";
import { useRef } from "react";
import { BLEND_MODES, blendWords, type BlendMode } from "@/core/blend/blend";
import type { Plan } from "@/core/plan/plan";
import { capital } from "@/features/shared/capital";
import { useBench } from "../state/BenchContext";
import { withPass } from "../state/inPlan";
import styles from "./Panel.module.css";

const OPTIONS = BLEND_MODES.map((value) => ({ value, label: capital(blendWords(value)) }));

/** How a pass meets what is beneath; each mode is seen in the picture while it is pointed at. */
export function BlendSelect({ pass }: { pass: Pass }) {
  const { store } = useBench();
  const withBlend = (mode: BlendMode) => (plan: Plan) => withPass(plan, pass.id, (now) => ({ ...now, blend: mode }));
  const isOpen = useRef(false);
  const onOpenChange = (open: boolean) => {
    isOpen.current = open;
    if (!open) store.getState().set({ tried: undefined });
  };
  const onActive = (mode: BlendMode) => {
    if (isOpen.current) store.getState().set({ tried: withBlend(mode)(store.getState().plan) });
  };
  const onSelect = (mode: BlendMode) => {
    store.getState().adjust(withBlend(mode));
    store.getState().commit(`${pass.name} meets the print by ${blendWords(mode)}`);
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
        onActive={(mode) => onActive(mode as BlendMode)}
        virtual={false}
        listHeight={340}
      />
    </div>
  );
}
