"use client";
import type { Pass } from "@/core/passes/pass";
import {
  LEAST_SHARPEN_RADIUS,
  MOST_AMOUNT,
  MOST_OVERSHOOT,
  MOST_SHARPEN_RADIUS,
  MOST_THRESHOLD,
  type SharpenSettings,
} from "@/core/passes/sharpen/sharpen";
import type { SharpenMove } from "@/core/passes/sharpen/move";
import { formatPercent, parsePercent, parsePower } from "@/features/shared/ValueSlider";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import styles from "../../panels/Panel.module.css";
import type { Tone } from "@/core/units";

/** Of the tones from black to paper, as finely as a threshold is set. */
const formatTone = (tone: Tone) => `${(100 * tone).toFixed(1)} %`;

const SLIDERS = [
  { name: "amount", label: "Amount", most: MOST_AMOUNT, step: 0.05, rest: 1, format: formatPercent },
  { name: "threshold", label: "Threshold", most: MOST_THRESHOLD, step: 0.001, rest: 0.01, format: formatTone },
  { name: "lighter", label: "Light limit", most: MOST_OVERSHOOT, step: 0.005, rest: 0.08, format: formatTone },
  { name: "darker", label: "Dark limit", most: MOST_OVERSHOOT, step: 0.005, rest: 0.12, format: formatTone },
] as const;

/** Radius in pixels of the picture, what is added, what is left, and how far it may go. */
export function SharpenPart({ pass, move }: { pass: Pass; move: SharpenMove }) {
  const { store, view } = useBench();
  const { width, height } = useBenchState((state) => state.picture);
  const long = Math.max(width, height);
  const change = (changed: Partial<SharpenSettings>) => store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const [least, most] = [Math.max(LEAST_SHARPEN_RADIUS * long, 0.2), MOST_SHARPEN_RADIUS * long];
  return (
    <Part title="Sharpening">
      <PassSlider
        pass={pass}
        label="Radius"
        value={Math.log2(move.radius * long)}
        min={Math.log2(least)}
        max={Math.log2(most)}
        step={0.05}
        rest={Math.log2(Math.max(0.0003 * long, least))}
        format={(power) => `${(2 ** power).toFixed(1)} px`}
        parse={parsePower}
        onChange={(power) => change({ radius: Math.min(Math.max(2 ** power / long, LEAST_SHARPEN_RADIUS), MOST_SHARPEN_RADIUS) })}
      />
      {SLIDERS.map(({ name, label, most: max, step, rest, format }) => (
        <PassSlider
          key={name}
          pass={pass}
          label={label}
          value={move[name]}
          min={0}
          max={max}
          step={step}
          rest={rest}
          format={format}
          parse={parsePercent}
          onChange={(to) => change({ [name]: to })}
        />
      ))}
      <div className={styles.row}>
        <button type="button" className={styles.chip} onClick={() => view.current?.oneToOne()}>
          Judge it one to one (G)
        </button>
      </div>
      <p className={styles.hint}>
        Differences below the threshold, such as grain, are left as they are. Contours never go further than the two limits, so that no rim
        is seen.
      </p>
    </Part>
  );
}
