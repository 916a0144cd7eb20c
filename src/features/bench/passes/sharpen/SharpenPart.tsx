"use client";
import { parsePower } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { sharpenFields } from "@/core/passes/sharpen/fields";
import type { SharpenSettings } from "@/core/passes/sharpen/sharpen";
import type { SharpenMove } from "@/core/passes/sharpen/move";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { PassSlider } from "../../panels/PassSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import styles from "../../panels/Panel.module.css";

/** The radius is shown in pixels of the picture. */
const { radius: RADIUS, ...OTHERS } = sharpenFields;

/** Radius in pixels of the picture, what is added, what is left, and how far it may go. */
export function SharpenPart({ pass, move }: { pass: Pass; move: SharpenMove }) {
  const { store, view } = useBench();
  const { width, height } = useBenchState((state) => state.picture);
  const long = Math.max(width, height);
  const change = (changed: Partial<SharpenSettings>) => store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const [least, most] = [Math.max(RADIUS.least * long, 0.2), RADIUS.most * long];
  return (
    <Part title="Sharpening">
      <PassSlider
        pass={pass}
        label={RADIUS.label}
        value={Math.log2(move.radius * long)}
        min={Math.log2(least)}
        max={Math.log2(most)}
        step={RADIUS.step}
        rest={Math.log2(Math.max(RADIUS.rest * long, least))}
        format={(power) => `${(2 ** power).toFixed(1)} px`}
        parse={parsePower}
        onChange={(power) => change({ radius: Math.min(Math.max(2 ** power / long, RADIUS.least), RADIUS.most) })}
      />
      <FieldSliders pass={pass} move={move} fields={OTHERS} />
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
