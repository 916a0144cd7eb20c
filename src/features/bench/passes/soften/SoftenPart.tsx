"use client";
import type { Pass } from "@/core/passes/pass";
import { Button, Segmented } from "antd";
import { LEAST_SOFTEN_RADIUS, MOST_SOFTEN_RADIUS, type SoftenSettings } from "@/core/passes/soften/soften";
import type { SoftenMove } from "@/core/passes/soften/move";
import { parsePower } from "@/features/shared/ValueSlider";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { softenCorners } from "./softCorners";
import styles from "../../panels/Panel.module.css";

const SPREADS: { value: SoftenSettings["spreads"]; label: string; title: string }[] = [
  { value: "lights", label: "Lights spread", title: "As a soft lens draws: lights glow over what is beside them, darks stay" },
  { value: "all", label: "All softened", title: "A plain blur" },
];

export const formatSoftness = (radius: number) => `${(100 * radius).toFixed(radius < 0.01 ? 2 : 1)} %`;

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
      <PassSlider
        pass={pass}
        label="Softness"
        value={Math.log2(move.radius)}
        min={Math.log2(LEAST_SOFTEN_RADIUS)}
        max={Math.log2(MOST_SOFTEN_RADIUS)}
        step={0.05}
        rest={Math.log2(0.004)}
        format={(power) => formatSoftness(2 ** power)}
        parse={(text) => {
          const power = parsePower(text);
          return power === undefined ? undefined : power - Math.log2(100);
        }}
        onChange={(power) => change({ radius: Math.min(Math.max(2 ** power, LEAST_SOFTEN_RADIUS), MOST_SOFTEN_RADIUS) })}
      />
      <div className={styles.row}>
        <Button size="small" disabled={pass.region !== null} onClick={() => softenCorners(store, pass.id)}>
          Only the corners
        </Button>
      </div>
      <p className={styles.hint}>Softness is a part of the long edge. How much of it is seen is set by the strength below.</p>
    </Part>
  );
}
