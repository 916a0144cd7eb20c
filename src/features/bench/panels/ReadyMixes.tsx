"use client";
import { Button } from "antd";
import { useState } from "react";
import { SavedMix } from "@/contracts/api";
import { READY_MIXES, type MixLook } from "@/core/mix/readyMixes";
import { useBench } from "../state/BenchContext";
import { ReadyChoice, type Choosable } from "./ReadyChoice";
import styles from "./Panel.module.css";

const MIXES: Choosable<MixLook, SavedMix> = {
  word: "mix",
  path: "/api/mixes",
  schema: SavedMix,
  ready: READY_MIXES.map(({ name, purpose, mix }) => ({ name, purpose, value: mix })),
  valueOf: ({ mix }) => mix,
  ownOf: (named, mix) => ({ ...named, mix: structuredClone(mix) }),
  read: ({ mix: { weights, sumHeld, huesOn, hueKnots } }) => ({ weights, sumHeld, huesOn, hueKnots }),
  put: (plan, mix) => ({ ...plan, mix: { clean: plan.mix.clean, ...structuredClone(mix) } }),
};

/** Mixes to start from: ours, and one's own. */
export function ReadyMixes() {
  const { store } = useBench();
  const [isChoosing, setChoosing] = useState(false);
  return (
    <>
      <div className={styles.row}>
        <Button size="small" aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
          {isChoosing ? "Fold" : "Ready mixes"}
        </Button>
      </div>
      {isChoosing && (
        <ReadyChoice
          of={MIXES}
          where="as the mix"
          onTaken={() => {
            store.getState().set({ chosenKnot: undefined });
            setChoosing(false);
          }}
        />
      )}
    </>
  );
}
