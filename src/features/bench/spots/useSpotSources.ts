import { useEffect } from "react";
import { useBench, useBenchState } from "../state/BenchContext";
import { addSpot, coverFrom } from "./spotEdits";

const NOT_FOUND = "The place to cover that spot from could not be looked for. Nothing was changed; touch it again.";

/** Covers the spots that were touched, one after the other: where to take from is proposed by the worker. */
export function useSpotSources(): void {
  const { store, engine } = useBench();
  const next = useBenchState((state) => state.uncovered[0]);
  useEffect(() => {
    if (!next) return undefined;
    let isWanted = true;
    const { spot, isPlaced } = next;
    const done = () => store.getState().set({ uncovered: store.getState().uncovered.filter((other) => other !== next) });
    const cover = async () => {
      const { plan, triedSources } = store.getState();
      const { spots } = plan;
      const tried = triedSources?.id === spot.id ? triedSources.from : [];
      const others = spots.filter(({ id }) => id !== spot.id);
      const from = isPlaced ? spot.from : await engine()?.spotSource(spot, others, tried);
      if (!isWanted) return;
      done();
      if (!from) return store.getState().set({ failure: NOT_FOUND });
      if (others.length < spots.length) coverFrom(store, spot.id, from);
      else addSpot(store, { ...spot, from });
    };
    cover().catch(() => {
      if (!isWanted) return;
      done();
      store.getState().set({ failure: NOT_FOUND });
    });
    return () => void (isWanted = false);
  }, [next, store, engine]);
}
