"use client";
import { Button, Switch } from "antd";
import { NAMED_HUES } from "@/core/mix/hueCurve";
import { CHANNELS, LUMINANCE_WEIGHTS, setWeight, WEIGHT_LIMIT, weightSum, type Channel } from "@/core/mix/weights";
import type { Mix } from "@/core/plan/plan";
import { capital } from "@/features/shared/capital";
import { Menu } from "@/features/shared/Menu";
import { hueCss } from "../scale/hueCss";
import { setKnot } from "../scale/hueEdits";
import { useBench, useBenchState } from "../state/BenchContext";
import { CleanPart } from "./CleanPart";
import { FilmFilter } from "./FilmFilter";
import { HueKnotList } from "./HueKnotList";
import { Panel, Part } from "./Panel";
import { ReadyMixes } from "./ReadyMixes";
import { StepSlider } from "./StepSlider";
import { SuggestedMixes } from "./SuggestedMixes";
import { TwinsPart } from "./TwinsPart";
import styles from "./Panel.module.css";

const NAMES: Record<Channel, string> = { red: "Red", green: "Green", blue: "Blue" };
const WEIGHT_STEP = 0.01;

/** Colour to monochrome: weights, hue response, and a way to see the colour. */
export function MixPanel() {
  const { store } = useBench();
  const mix = useBenchState((state) => state.plan.mix);
  const look = useBenchState((state) => state.look);
  const { adjust, commit, set } = store.getState();
  const change = (changed: Partial<Mix>) => adjust((plan) => ({ ...plan, mix: { ...plan.mix, ...changed } }));
  const sum = weightSum(mix.weights);
  const moved = mix.hueKnots.filter((knot) => knot.stops !== 0).length;
  return (
    <Panel title="Mix" place="Colour to monochrome, before pass 1">
      <Part title="Weights" state={mix.sumHeld ? "sum held at 1" : `sum ${sum.toFixed(2)}`}>
        {CHANNELS.map((channel) => (
          <StepSlider
            key={channel}
            label={NAMES[channel]}
            value={mix.weights[channel]}
            min={-WEIGHT_LIMIT}
            max={WEIGHT_LIMIT}
            step={WEIGHT_STEP}
            rest={LUMINANCE_WEIGHTS[channel]}
            format={(value) => value.toFixed(2).replace("-", "−")}
            onChange={(value) => change({ weights: setWeight(store.getState().plan.mix.weights, channel, value, mix.sumHeld) })}
            says={(shown) => `${NAMES[channel]} weight ${shown}`}
          />
        ))}
        <div className={styles.row}>
          <Switch
            size="small"
            checked={mix.sumHeld}
            aria-label="Hold the sum of the weights at 1"
            onChange={(sumHeld) => {
              change(
                sumHeld ? { sumHeld, weights: setWeight(mix.weights, "green", 1 - mix.weights.red - mix.weights.blue, true) } : { sumHeld },
              );
              commit(sumHeld ? "Sum of weights held" : "Sum of weights let go");
            }}
          />
          <span className={styles.hint}>Hold the sum, so that neutrals stay</span>
        </div>
        <div className={styles.row}>
          <Button
            size="small"
            onClick={() => {
              change({ weights: { ...LUMINANCE_WEIGHTS } });
              commit("Weights as the eye sees");
            }}
          >
            As the eye sees
          </Button>
        </div>
      </Part>
      <Part title="Hues" state={mix.huesOn ? `${moved} moved, neutrals stay` : "off"}>
        <div className={styles.row}>
          <Switch
            size="small"
            checked={mix.huesOn}
            aria-label="Hue response on"
            onChange={(huesOn) => {
              change({ huesOn });
              commit(huesOn ? "Hue response on" : "Hue response off");
            }}
          />
          <span className={styles.hint}>Hue response</span>
          <span className={styles.grow} />
          <Menu
            columns={2}
            items={NAMED_HUES.map(({ name, hueDeg }) => ({
              key: name,
              label: capital(name),
              icon: <span className={styles.swatch} style={{ background: hueCss(hueDeg) }} />,
            }))}
            onPick={(picked) => setKnot(store, NAMED_HUES.find(({ name }) => name === picked)!.hueDeg)}
          >
            <Button size="small">Add a hue</Button>
          </Menu>
          {mix.hueKnots.length > 0 && (
            <Button
              size="small"
              onClick={() => {
                change({ hueKnots: [] });
                set({ chosenKnot: undefined });
                commit("Hue line cleared");
              }}
            >
              Clear
            </Button>
          )}
        </div>
        {mix.hueKnots.length === 0 && (
          <p className={styles.hint}>
            Choose Pull hue, touch a colour in the picture, and pull up for lighter or down for darker. Or click on the hue line, or add a
            hue by its name.
          </p>
        )}
        <HueKnotList />
      </Part>
      <CleanPart />
      <Part folds title="Film and filter">
        <FilmFilter />
      </Part>
      <TwinsPart />
      <Part title="Suggestions">
        <SuggestedMixes />
        <ReadyMixes />
      </Part>
      <Part title="Bypass">
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
