"use client";
import { Button, Switch } from "antd";
import type { ReactNode } from "react";
import { CHANNELS, LUMINANCE_WEIGHTS, setWeight, WEIGHT_LIMIT, weightSum, type Channel } from "@/core/mix/weights";
import type { MixLook } from "@/core/mix/mixLook";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustMix, mixInHand } from "../state/mixInHand";
import { Part } from "./Panel";
import { StepSlider } from "./StepSlider";
import styles from "./Panel.module.css";

const NAMES: Record<Channel, string> = { red: "Red", green: "Green", blue: "Blue" };
const WEIGHT_STEP = 0.01;

/** How much red, green and blue light go into the mix in hand; `isOff` where they are not used. */
export function WeightsPart({ isOff = false, children }: { isOff?: boolean; children?: ReactNode }) {
  const { store } = useBench();
  const mix = useBenchState(mixInHand);
  const { commit } = store.getState();
  const change = (changed: Partial<MixLook>) => adjustMix(store, changed);
  const sum = weightSum(mix.weights);
  return (
    <Part title="Weights" state={isOff ? "off" : mix.sumHeld ? "sum held at 1" : `sum ${sum.toFixed(2)}`}>
      {children}
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
          onChange={(value) => change({ weights: setWeight(mixInHand(store.getState()).weights, channel, value, mix.sumHeld) })}
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
  );
}
