"use client";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { LUMINANCE_WEIGHTS, CHANNELS } from "@/core/mix/weights";
import type { Mix } from "@/core/plan/plan";
import { useBench, useBenchState } from "./BenchContext";
import type { Step } from "./benchStore";
import styles from "./PlanRibbon.module.css";

/** The plan left to right in the order the picture flows. */
export function PlanRibbon() {
  const { start, store } = useBench();
  const plan = useBenchState((state) => state.plan);
  const step = useBenchState((state) => state.step);
  const choose = (chosen: Step) => () => store.getState().set({ step: chosen, chosenStrand: undefined, chosenKnot: undefined });
  const { profile } = start.picture.facts;
  return (
    <nav className={styles.ribbon} aria-label="Print plan">
      <Slip
        stage
        name="Colour"
        words={profile === SRGB_SPACE.name ? "As found" : profile}
        isOn={step.stage === "colour"}
        onChoose={choose({ stage: "colour" })}
      />
      <Slip stage name="Mix" words={mixWords(plan.mix)} isOn={step.stage === "mix"} onChoose={choose({ stage: "mix" })} />
      {plan.passes.map((pass, i) => (
        <Slip
          key={pass.id}
          number={i + 1}
          name={pass.name}
          words="Placement · whole"
          strength={pass.strength}
          isOff={!pass.on}
          isOn={step.stage === "pass" && step.id === pass.id}
          onChoose={choose({ stage: "pass", id: pass.id })}
        />
      ))}
      <Slip stage name="Finish" words="Export" isOn={step.stage === "finish"} onChoose={choose({ stage: "finish" })} />
    </nav>
  );
}

interface SlipProps {
  name: string;
  words: string;
  number?: number;
  strength?: number;
  stage?: boolean;
  isOff?: boolean;
  isOn: boolean;
  onChoose(): void;
}

function Slip({ name, words, number, strength = 1, stage, isOff, isOn, onChoose }: SlipProps) {
  const classes = [styles.slip, stage && styles.stage, isOff && styles.off, isOn && styles.on].filter(Boolean).join(" ");
  return (
    <button type="button" className={classes} aria-current={isOn ? "step" : undefined} onClick={onChoose}>
      <span className={styles.name}>{name}</span>
      {number !== undefined && <i>{number}</i>}
      <span className={styles.words}>{isOff ? "Switched off" : words}</span>
      <span className={styles.bar}>
        <span style={{ width: `${Math.min(100, 100 * strength)}%` }} />
      </span>
    </button>
  );
}

function mixWords(mix: Mix): string {
  const plain = CHANNELS.every((channel) => Math.abs(mix.weights[channel] - LUMINANCE_WEIGHTS[channel]) < 1e-4);
  const moved = mix.huesOn ? mix.hueKnots.filter((knot) => knot.stops !== 0).length : 0;
  const hues = moved ? `${moved} hue${moved > 1 ? "s" : ""}` : undefined;
  return [plain ? (hues ? undefined : "As the eye sees") : "Weights", hues].filter(Boolean).join(", ");
}
