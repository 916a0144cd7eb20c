"use client";
import { formatPercent } from "@/core/text/written";
import { Button } from "antd";
import { actsOnColour } from "@/core/passes/passKinds";
import { placeOfSet, untieSet } from "@/core/plan/editPasses";
import type { PassSet } from "@/core/plan/plan";
import { useBench, usePanelPlan } from "../state/BenchContext";
import { withSet } from "../state/inPlan";
import { MaskExport } from "./MaskExport";
import { NameField } from "./NameField";
import { Panel, Part } from "./Panel";
import { StrengthSlider } from "./StrengthSlider";
import { SwitchRow } from "./SwitchRow";
import { TonesPart } from "./TonesPart";
import { WherePart } from "./WherePart";
import styles from "./Panel.module.css";

/** A set: its passes, and the one strength and switch over all of them. */
export function SetPanel({ set }: { set: PassSet }) {
  const { store } = useBench();
  const plan = usePanelPlan((now) => now);
  const { adjust, commit } = store.getState();
  const { first, end } = placeOfSet(plan, set.id);
  const passes = plan.passes.slice(first, end);
  const change = (changed: Partial<PassSet>) => adjust((now) => withSet(now, set.id, changed));
  const untie = () => {
    store.getState().chooseStep({ stage: "pass", id: passes[0]!.id });
    adjust((now) => untieSet(now, set.id));
    commit(`${set.name} untied`);
  };
  return (
    <Panel
      title={
        <NameField
          key={set.id}
          of="set"
          name={set.name}
          onNamed={(name) => {
            change({ name });
            commit(`Set named ${name}`);
          }}
        />
      }
      name={set.name}
      place={`Set of ${passes.length} ${passes.length === 1 ? "pass" : "passes"}, ${first + 1} to ${end}`}
    >
      <WherePart of={set} />
      <TonesPart of={set} beforeMix={passes.some(({ move }) => actsOnColour(move))} />
      <Part title="The whole set">
        <StrengthSlider of={set.name} value={set.strength} onChange={(strength) => change({ strength })} />
        <SwitchRow
          label="Set on"
          checked={set.on}
          words={`The set is ${set.on ? "on" : "off"} (O)`}
          onChange={(on) => {
            change({ on });
            commit(`${set.name} ${on ? "on" : "off"}`);
          }}
        />
        <p className={styles.hint}>
          Its strength is taken times that of each pass in it. All of them act within its region and through its gate, each in its own
          besides.
        </p>
        {(set.region !== null || set.gate !== null) && <MaskExport of={set} />}
      </Part>
      <Part title="Its passes">
        <ul className={styles.list}>
          {passes.map((pass, i) => (
            <li key={pass.id} className={styles.member}>
              <button type="button" className={styles.small} onClick={() => store.getState().chooseStep({ stage: "pass", id: pass.id })}>
                {first + i + 1} {pass.name}
              </button>
              <span>{pass.on ? formatPercent(pass.strength * set.strength) : "off"}</span>
            </li>
          ))}
        </ul>
        <div className={styles.row}>
          <Button size="small" onClick={untie}>
            Untie all
          </Button>
        </div>
      </Part>
    </Panel>
  );
}
