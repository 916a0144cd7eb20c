"use client";
import type { Pass } from "@/core/passes/pass";
import { LEAST_MASK_RADIUS, MOST_MASK_RADIUS } from "@/core/passes/contrast-mask/contrastMask";
import type { ContrastMaskMove } from "@/core/passes/contrast-mask/move";
import { formatPercent, parsePercent } from "@/features/shared/ValueSlider";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";

const formatRadius = (radius: number) => `${(100 * radius).toFixed(1)} %`;

/** The blurred negative: how wide it is blurred, how dense it is, whether it stops at edges. */
export function ContrastMaskPart({ pass, move }: { pass: Pass; move: ContrastMaskMove }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (changed: Partial<ContrastMaskMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  return (
    <Part title="Contrast mask" state={move.density === 0 ? "no mask" : undefined}>
      <PassSlider
        pass={pass}
        label="Density"
        words="Mask density"
        value={move.density}
        min={0}
        max={1}
        step={0.01}
        rest={0.25}
        format={formatPercent}
        parse={parsePercent}
        onChange={(to) => change({ density: to })}
      />
      <PassSlider
        pass={pass}
        label="Blur"
        words="Mask blur"
        value={move.radius}
        min={LEAST_MASK_RADIUS}
        max={MOST_MASK_RADIUS}
        step={0.005}
        rest={0.04}
        format={formatRadius}
        parse={parsePercent}
        onChange={(to) => change({ radius: to })}
      />
      <SwitchRow
        label="Stop at edges"
        checked={move.edges}
        words={move.edges ? "Stops at edges: no light seam along them" : "Blurs over edges, as in the darkroom"}
        onChange={(edges) => {
          change({ edges });
          commit(`${pass.name} ${edges ? "stops at edges" : "blurs over edges"}`);
        }}
      />
      <p className={styles.hint}>
        Shadows gain and lights lose up to {formatPercent(move.density)} of their distance from Zone V, in parts larger than the blur (
        {formatRadius(move.radius)} of the long edge).
      </p>
    </Part>
  );
}
