"use client";
import { Button } from "antd";
import { useMemo, useState } from "react";
import { SavedMix } from "@/contracts/api";
import type { MixLook } from "@/core/mix/mixLook";
import { READY_MIXES } from "@/core/mix/readyMixes";
import { useBench, useBenchState } from "../state/BenchContext";
import { mixAt, mixPlaceOf, withMixAt, type MixPlace } from "../state/mixInHand";
import { ReadyChoice, type Choosable } from "./ReadyChoice";
import styles from "./Panel.module.css";

const mixesFor = (place: MixPlace): Choosable<MixLook, SavedMix> => ({
  word: "mix",
  path: "/api/mixes",
  schema: SavedMix,
  ready: READY_MIXES.map(({ name, purpose, mix }) => ({ name, purpose, value: mix })),
  valueOf: ({ mix }) => mix,
  ownOf: (named, mix) => ({ ...named, mix: structuredClone(mix) }),
  read(plan) {
    const { weights, sumHeld, huesOn, hueKnots } = mixAt(plan, place);
    return { weights, sumHeld, huesOn, hueKnots };
  },
  put: (plan, mix) => withMixAt(plan, place, structuredClone(mix)),
});

/** Mixes to start from: ours, and one's own. */
export function ReadyMixes() {
  const { store } = useBench();
  const place = useBenchState(mixPlaceOf);
  const mixes = useMemo(() => mixesFor(place), [place]);
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
          of={mixes}
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
