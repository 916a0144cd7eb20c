"use client";
import { Button } from "antd";
import { v4 as uuid } from "uuid";
import type { TintPoint } from "@/core/passes/tint/move";
import { restingPass } from "@/core/plan/defaultPlan";
import { freshPassName, insertPass, removePass } from "@/core/plan/editPasses";
import { useBench, useBenchState } from "../state/BenchContext";
import { settledPlan, withMove } from "../state/inPlan";
import { isPrintTone } from "../passes/tint/printTone";
import { TintStrips } from "../passes/tint/ReadyTints";
import { Part } from "./Panel";
import styles from "./Panel.module.css";

/** The tone of the whole print: a tint after all other passes, put there and taken away from here. */
export function PrintTone() {
  const { store } = useBench();
  const last = useBenchState((state) => settledPlan(state).passes.at(-1));
  const toned = last && isPrintTone(last) ? last : undefined;
  const take = (points: readonly TintPoint[], name: string) => {
    const { plan, adjust, commit, set } = store.getState();
    const put = toned ? plan : insertPass(plan, restingPass("tint", uuid(), freshPassName(plan, "Print tone")));
    if (!put) return set({ failure: "A plan holds no more passes than these." });
    const { id } = put.passes.at(-1)!;
    adjust(() => withMove(put, id, { kind: "tint", points: points.map((point) => ({ ...point })), replaces: false }));
    commit(`Print toned: ${name}`);
  };
  return (
    <Part folds title="Print tone" state={toned ? toned.name : "none"}>
      <TintStrips onTake={take} />
      <div className={styles.row}>
        <Button
          size="small"
          disabled={!toned}
          onClick={() => {
            store.getState().adjust((plan) => removePass(plan, toned!.id));
            store.getState().commit("Print tone taken away");
          }}
        >
          None
        </Button>
        <Button size="small" disabled={!toned} onClick={() => store.getState().chooseStep({ stage: "pass", id: toned!.id })}>
          Open the pass
        </Button>
      </div>
    </Part>
  );
}
