"use client";
import type { Pass } from "@/core/passes/pass";
import { LEAST_RELIEF, MOST_RELIEF, RELIEF_SIZES } from "@/core/passes/relief/relief";
import type { ReliefMove } from "@/core/passes/relief/move";
import { formatPercent, parsePercent } from "@/features/shared/ValueSlider";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import styles from "../../panels/Panel.module.css";

/** How each size is said, and what of a picture is of that size. */
const LABELS = { fine: "Fine", medium: "Medium", broad: "Broad" } as const;

export const formatRelief = (amount: number) => `${amount < 0 ? "−" : amount > 0 ? "+" : ""}${formatPercent(Math.abs(amount))}`;

/** Detail in three sizes, each raised or lowered. */
export function ReliefPart({ pass, move }: { pass: Pass; move: ReliefMove }) {
  const { adjust } = useBench().store.getState();
  const isFlat = RELIEF_SIZES.every(({ name }) => move[name] === 0);
  return (
    <Part title="Relief" state={isFlat ? "as it is" : undefined}>
      {RELIEF_SIZES.map(({ name }) => (
        <PassSlider
          key={name}
          pass={pass}
          label={LABELS[name]}
          words={`${LABELS[name]} relief`}
          value={move[name]}
          min={LEAST_RELIEF}
          max={MOST_RELIEF}
          step={0.05}
          rest={0}
          format={formatRelief}
          parse={parsePercent}
          onChange={(to) => adjust((plan) => withMove(plan, pass.id, { ...move, [name]: to }))}
        />
      ))}
      <p className={styles.hint}>
        Fine is the grain of stone, bark and cloth; medium what gives things their roundness; broad the folds of land and clouds. Strong
        edges stay as they are, without light seams. Below 0 % detail fades into mist.
      </p>
    </Part>
  );
}
