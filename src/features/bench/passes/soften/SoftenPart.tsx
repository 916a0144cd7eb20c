"use client";
import type { Pass } from "@/core/passes/pass";
import { Button, Segmented } from "antd";
import { softenFields } from "@/core/passes/soften/fields";
import type { SoftenSettings } from "@/core/passes/soften/soften";
import type { SoftenMove } from "@/core/passes/soften/move";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { softenCorners } from "./softCorners";
import styles from "../../panels/Panel.module.css";

const SPREADS: { value: SoftenSettings["spreads"]; label: string; title: string }[] = [
  { value: "lights", label: "Lights spread", title: "As a soft lens draws: lights glow over what is beside them, darks stay" },
  { value: "all", label: "All softened", title: "A plain blur" },
];

/** How far the print is softened, and in which way. */
export function SoftenPart({ pass, move }: { pass: Pass; move: SoftenMove }) {
  const { store } = useBench();
  const change = (changed: Partial<SoftenSettings>) => store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  return (
    <Part title="Softening">
      <div className={styles.row}>
        <Segmented<SoftenSettings["spreads"]>
          size="small"
          aria-label="How it softens"
          value={move.spreads}
          options={SPREADS}
          onChange={(spreads) => {
            change({ spreads });
            store.getState().commit(`${SPREADS.find(({ value }) => value === spreads)!.label} in ${pass.name}`);
          }}
        />
      </div>
      <FieldSliders pass={pass} move={move} fields={softenFields} />
      <div className={styles.row}>
        <Button size="small" disabled={pass.region !== null} onClick={() => softenCorners(store, pass.id)}>
          Only the corners
        </Button>
      </div>
      <p className={styles.hint}>Softness is a part of the long edge. How much of it is seen is set by the strength below.</p>
    </Part>
  );
}
