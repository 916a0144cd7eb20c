"use client";
import type { Pass } from "@/core/passes/pass";
import { contrastMaskFields } from "@/core/passes/contrast-mask/fields";
import type { ContrastMaskMove } from "@/core/passes/contrast-mask/move";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { FieldSlider } from "../../panels/FieldSlider";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";

const { density: DENSITY, radius: BLUR } = contrastMaskFields;

/** The blurred negative: how wide it is blurred, how dense it is, whether it stops at edges. */
export function ContrastMaskPart({ pass, move }: { pass: Pass; move: ContrastMaskMove }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const change = (changed: Partial<ContrastMaskMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  return (
    <Part title="Contrast mask" state={move.density === 0 ? "no mask" : undefined}>
      <FieldSlider pass={pass} move={move} name="density" field={DENSITY} />
      <FieldSlider pass={pass} move={move} name="radius" field={BLUR} />
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
        Shadows gain and lights lose up to {DENSITY.written.format(move.density)} of their distance from Zone V, in parts larger than the
        blur ({BLUR.written.format(move.radius)} of the long edge).
      </p>
    </Part>
  );
}
