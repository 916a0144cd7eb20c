"use client";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { v4 as uuid } from "uuid";
import { tieToBefore, untieFrom } from "@/core/plan/editPasses";
import { useBench, usePanelPlan } from "../state/BenchContext";

import styles from "./Panel.module.css";

/** Ties a pass to the one before it, shows the set it is in, takes it out. */
export function SetRow({ pass, index }: { pass: Pass; index: number }) {
  const { store } = useBench();
  const sets = usePanelPlan((plan) => plan.sets);
  const before = usePanelPlan(({ passes }) => passes[index - 1]);
  const { adjust, commit } = store.getState();
  const own = sets.find(({ id }) => id === pass.set);
  const isTied = !!before && before.set !== null && before.set === pass.set;
  const tie = () => {
    const made = { id: uuid(), name: freshSetName(sets), on: true, strength: 1, region: null, gate: null };
    const tied = tieToBefore(store.getState().plan, pass.id, made);
    if (!tied) return;
    adjust(() => tied);
    commit(`${pass.name} tied to ${before!.name}`);
  };
  const untie = () => {
    adjust((now) => untieFrom(now, pass.id));
    commit(`${pass.name} untied`);
  };
  return (
    <div className={styles.row}>
      <Button size="small" disabled={!before || isTied} onClick={tie}>
        Tie to the one before
      </Button>
      {own && (
        <>
          <Button size="small" onClick={untie}>
            Untie
          </Button>
          <button type="button" className={styles.small} onClick={() => store.getState().chooseStep({ stage: "set", id: own.id })}>
            In {own.name}
          </button>
        </>
      )}
    </div>
  );
}

function freshSetName(sets: readonly { name: string }[]): string {
  const taken = new Set(sets.map(({ name }) => name));
  let number = sets.length + 1;
  while (taken.has(`Set ${number}`)) number++;
  return `Set ${number}`;
}
