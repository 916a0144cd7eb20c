import { useEffect, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import type { Glimpse } from "@/engine/messages/messages";
import { useBench, useBenchState } from "../state/BenchContext";

/** How long the hand must rest before the slips' small pictures are made anew. */
const REST_MS = 250;

/** What each pass of a plan changes, as a small picture, by the pass's id. */
export function useChanges(plan: Plan): ReadonlyMap<string, Glimpse> {
  const { engine } = useBench();
  const isReady = useBenchState((state) => state.isReady);
  const [changes, setChanges] = useState<ReadonlyMap<string, Glimpse>>(new Map());
  useEffect(() => {
    if (!isReady) return;
    let isWanted = true;
    const timer = setTimeout(() => {
      void engine()
        ?.glimpse(plan, "changes")
        .then((glimpses) => isWanted && glimpses && setChanges(new Map(plan.passes.map(({ id }, i) => [id, glimpses[i]!]))));
    }, REST_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [engine, plan, isReady]);
  return changes;
}
