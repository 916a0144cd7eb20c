"use client";
import { Button, Switch } from "antd";
import { v4 as uuid } from "uuid";
import { actsOnColour, actsOnTones } from "@/core/passes/passKinds";
import { copyOf, insertPass, movePass, passesBeforeMix, removePass } from "@/core/plan/editPasses";
import { regionOf } from "@/core/plan/editRegions";
import type { Pass } from "@/core/plan/plan";
import { useBench } from "../state/BenchContext";
import { formatPercent } from "../../shared/ValueSlider";
import { afterWhat, passNumber } from "../state/passNumber";
import { withPass } from "../state/benchStore";
import { faceOf } from "../passes/passFaces";
import { BlendSelect } from "./BlendSelect";
import { MaskExport } from "./MaskExport";
import { NameField } from "./NameField";
import { Panel, Part } from "./Panel";
import { PrintBeside } from "./PrintBeside";
import { SetRow } from "./SetRow";
import { StrengthSlider } from "./StrengthSlider";
import { TonesPart } from "./TonesPart";
import { WherePart } from "./WherePart";
import styles from "./Panel.module.css";

/** A pass: its move, how it meets the print, and what can be done with it as a whole. */
export function PassPanel({ pass, index }: { pass: Pass; index: number }) {
  const { store } = useBench();
  const { adjust, commit, set } = store.getState();
  const change = (changed: Partial<Pass>) => adjust((plan) => withPass(plan, pass.id, (now) => ({ ...now, ...changed })));
  const rename = (name: string) => {
    change({ name });
    commit(`Pass named ${name}`);
  };
  const duplicate = () => {
    const copy = copyOf(store.getState().plan, pass, uuid());
    const grown = insertPass(store.getState().plan, copy, pass.id);
    if (!grown) return set({ failure: "A plan holds no more passes than these." });
    adjust(() => grown);
    set({ step: { stage: "pass", id: copy.id }, chosenStrands: [] });
    commit(`${pass.name} duplicated`);
  };
  const remove = () => {
    const { passes } = store.getState().plan;
    const neighbour = passes[index + 1] ?? passes[index - 1];
    set({ step: neighbour ? { stage: "pass", id: neighbour.id } : { stage: "mix" }, chosenStrands: [] });
    adjust((plan) => removePass(plan, pass.id));
    commit(`${pass.name} deleted`);
  };
  const shift = (by: number) => {
    adjust((plan) => movePass(plan, pass.id, index + by));
    commit(`${pass.name} moved ${by < 0 ? "before" : "after"} its neighbour`);
  };
  const { plan } = store.getState();
  const mixAt = passesBeforeMix(plan);
  const isOfColour = actsOnColour(pass.move);
  const isFirst = index === (isOfColour ? 0 : mixAt);
  const isLast = index === (isOfColour ? mixAt : plan.passes.length) - 1;
  const region = regionOf(plan, pass);
  const face = faceOf(pass.move);
  const where = region ? `in ${region.name}` : "on the whole picture";
  return (
    <Panel
      title={<NameField key={pass.id} of="pass" name={pass.name} onNamed={rename} />}
      place={`Pass ${passNumber(plan, index)} · ${face.name.toLowerCase()} ${where}, after ${afterWhat(plan, index)}`}
    >
      {isOfColour && <PrintBeside />}
      <WherePart of={pass} />
      <TonesPart of={pass} pass={pass} beforeMix={isOfColour} />
      <face.Panel pass={pass} move={pass.move} />
      <Part title="How it meets the print" state={meets(pass)}>
        <StrengthSlider of={pass.name} value={pass.strength} onChange={(strength) => change({ strength })} />
        {actsOnTones(pass.move) && <BlendSelect pass={pass} />}
        <div className={styles.row}>
          <Switch
            size="small"
            checked={pass.on}
            aria-label="Pass on"
            onChange={(on) => {
              change({ on });
              commit(`${pass.name} ${on ? "on" : "off"}`);
            }}
          />
          <span className={styles.hint}>{pass.on ? "The pass is on" : "The pass is off"} (O)</span>
        </div>
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
    </Panel>
  );
}

function meets({ on, strength, blend, move }: Pass): string {
  return `${on ? "" : "off, "}${formatPercent(strength)}${!actsOnTones(move) ? "" : `, ${blend.replace("-", " ")}`}`;
}
