"use client";
import { formatPercent } from "@/core/text/written";
import { Switch } from "antd";
import { useBench, useBenchState } from "../state/BenchContext";
import { CleanPart } from "./CleanPart";
import { FilmFilter } from "./FilmFilter";
import { HuesPart } from "./HuesPart";
import { Panel, Part } from "./Panel";
import { ReadyMixes } from "./ReadyMixes";
import { StrengthSlider } from "./StrengthSlider";
import { SuggestedMixes } from "./SuggestedMixes";
import { TwinsPart } from "./TwinsPart";
import { WeightsPart } from "./WeightsPart";
import styles from "./Panel.module.css";

/** Colour to monochrome: weights, hue response, and a way to see the colour. */
export function MixPanel() {
  const { store } = useBench();
  const { weightsOn, strength } = useBenchState((state) => state.plan.mix);
  const look = useBenchState((state) => state.look);
  const { adjust, commit, set } = store.getState();
  return (
    <Panel title="Mix" place="Colour to monochrome, before pass 1">
      <WeightsPart isOff={!weightsOn}>
        <div className={styles.row}>
          <Switch
            size="small"
            checked={weightsOn}
            aria-label="Weights on"
            onChange={(on) => {
              adjust((plan) => ({ ...plan, mix: { ...plan.mix, weightsOn: on } }));
              commit(on ? "Weights on" : "Weights off");
            }}
          />
          <span className={styles.hint}>Weights; without them, light as the eye sees it</span>
        </div>
      </WeightsPart>
      <HuesPart />
      <CleanPart />
      <Part folds title="Film and filter">
        <FilmFilter />
      </Part>
      <TwinsPart />
      <Part title="Suggestions">
        <SuggestedMixes />
        <ReadyMixes />
      </Part>
      <Part folds title="The whole mix" state={strength === 1 ? undefined : formatPercent(strength)}>
        <StrengthSlider
          of="The mix"
          value={strength}
          onChange={(to) => adjust((plan) => ({ ...plan, mix: { ...plan.mix, strength: to } }))}
        />
        <div className={styles.row}>
          <Switch
            size="small"
            checked={look.kind === "colour"}
            aria-label="Show the colour"
            onChange={(on) => set({ look: { kind: on ? "colour" : "picture" } })}
          />
          <span className={styles.hint}>Show the colour that goes into the mix (C)</span>
        </div>
      </Part>
    </Panel>
  );
}
