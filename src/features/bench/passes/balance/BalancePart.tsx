"use client";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { balanceFields } from "@/core/passes/balance/fields";
import type { BalanceMove } from "@/core/passes/balance/move";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { PatchSize } from "../PatchSize";
import { PickButton } from "../PickButton";
import styles from "../../panels/Panel.module.css";

/** Another light: by temperature and tint, or by something that is to be grey. */
export function BalancePart({ pass, move }: { pass: Pass; move: BalanceMove }) {
  const { adjust, commit } = useBench().store.getState();
  const change = (changed: Partial<BalanceMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const isFound = move.mired === 0 && move.tint === 0;
  return (
    <Part title="Balance" state={isFound ? "as found" : undefined}>
      <FieldSliders pass={pass} move={move} fields={balanceFields} />
      <div className={styles.row}>
        <PickButton tool="pick-neutral" hint="Touch something in the picture that was grey: its tinge is taken out">
          Pick a neutral
        </PickButton>
        <PatchSize />
        <span className={styles.grow} />
        <Button
          size="small"
          disabled={isFound}
          onClick={() => {
            change({ mired: 0, tint: 0 });
            commit(`Colours as found in ${pass.name}`);
          }}
        >
          As found
        </Button>
      </div>
      <p className={styles.hint}>
        Warmth in mired, as light-balancing filters are numbered; tint in hundredths of density, as colour compensating filters are. A
        neutral keeps its lightness.
      </p>
    </Part>
  );
}
