"use client";
import { formatPercent } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { memo } from "react";
import { v4 as uuid } from "uuid";
import { blendWords } from "@/core/blend/blend";
import { actsOnTones } from "@/core/passes/passKinds";
import { copyOf, insertPass, movePass, removePass } from "@/core/plan/editPasses";
import { useBench } from "../state/BenchContext";
import { withPass } from "../state/inPlan";
import { BlendSelect } from "./BlendSelect";
import { MaskExport } from "./MaskExport";
import { Part } from "./Panel";
import { sameBesidesMove } from "./sameBesides";
import { SetRow } from "./SetRow";
import { StrengthSlider } from "./StrengthSlider";
import { SwitchRow } from "./SwitchRow";
import styles from "./Panel.module.css";

interface Props {
  pass: Pass;
  index: number;
  isFirst: boolean;
  isLast: boolean;
}

/** How a pass meets the print, and what can be done with it as a whole. */
export const WholePass = memo(
  Whole,
  (before, now) =>
    sameBesidesMove(before.pass, now.pass) && before.index === now.index && before.isFirst === now.isFirst && before.isLast === now.isLast,
);

function Whole({ pass, index, isFirst, isLast }: Props) {
  const { store } = useBench();
  const { adjust, commit, set } = store.getState();
  const change = (changed: Partial<Pass>) => adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, ...changed })));
  const duplicate = () => {
    const { plan } = store.getState();
    // As it is by now: what is drawn here may be older than its move.
    const copy = copyOf(plan, plan.passes[index]!, uuid());
    const grown = insertPass(plan, copy, pass.id);
    if (!grown) return set({ failure: "A plan holds no more passes than these." });
    adjust(() => grown);
    store.getState().chooseStep({ stage: "pass", id: copy.id });
    commit(`${pass.name} duplicated`);
  };
  const remove = () => {
    const { passes } = store.getState().plan;
    const neighbour = passes[index + 1] ?? passes[index - 1];
    store.getState().chooseStep(neighbour ? { stage: "pass", id: neighbour.id } : { stage: "mix" });
    adjust((plan) => removePass(plan, pass.id));
    commit(`${pass.name} deleted`);
  };
  const shift = (by: number) => {
    adjust((plan) => movePass(plan, pass.id, index + by));
    commit(`${pass.name} moved ${by < 0 ? "before" : "after"} its neighbour`);
  };
  return (
    <>
      <Part title="How it meets the print" state={meets(pass)}>
        <StrengthSlider of={pass.name} value={pass.strength} onChange={(strength) => change({ strength })} />
        {actsOnTones(pass.move) && <BlendSelect pass={pass} />}
        <SwitchRow
          label="Pass on"
          checked={pass.on}
          words={`The pass is ${pass.on ? "on" : "off"} (O)`}
          onChange={(on) => {
            change({ on });
            commit(`${pass.name} ${on ? "on" : "off"}`);
          }}
        />
      </Part>
      <Part title="The pass">
        <div className={styles.row}>
          <Button size="small" disabled={isFirst} onClick={() => shift(-1)}>
            Earlier
          </Button>
          <Button size="small" disabled={isLast} onClick={() => shift(1)}>
            Later
          </Button>
          <Button size="small" onClick={duplicate}>
            Duplicate
          </Button>
          <Button size="small" onClick={remove}>
            Delete
          </Button>
        </div>
        <SetRow pass={pass} index={index} />
        {(pass.region !== null || pass.gate !== null || pass.zonesOff.length > 0) && <MaskExport of={pass} />}
      </Part>
    </>
  );
}

function meets({ on, strength, blend, move }: Pass): string {
  return `${on ? "" : "off, "}${formatPercent(strength)}${!actsOnTones(move) ? "" : `, ${blendWords(blend)}`}`;
}
