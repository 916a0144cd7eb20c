"use client";
import type { Pass } from "@/core/passes/pass";
import { reliefFields } from "@/core/passes/relief/fields";
import { RELIEF_SIZES } from "@/core/passes/relief/relief";
import type { ReliefMove } from "@/core/passes/relief/move";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import styles from "../../panels/Panel.module.css";

/** Detail in three sizes, each raised or lowered. */
export function ReliefPart({ pass, move }: { pass: Pass; move: ReliefMove }) {
  const isFlat = RELIEF_SIZES.every(({ name }) => move[name] === 0);
  return (
    <Part title="Relief" state={isFlat ? "as it is" : undefined}>
      <FieldSliders pass={pass} move={move} fields={reliefFields} />
      <p className={styles.hint}>
        Fine is the grain of stone, bark and cloth; medium what gives things their roundness; broad the folds of land and clouds. Strong
        edges stay as they are, without light seams. Below 0 % detail fades into mist.
      </p>
    </Part>
  );
}
