import { useEffect, useRef, useState } from "react";
import type { Mix } from "@/core/plan/plan";
import type { Region } from "@/core/region/region";
import type { RegionPlane } from "@/engine/messages";
import { useBench, useBenchState } from "./BenchContext";

const PAUSE_MS = 80;

/** How far a region acts, small, following the hand: one question at a time, the newest next. */
export function useRegionPlane(region: Region | undefined): RegionPlane | undefined {
  const { engine, store } = useBench();
  const isReady = useBenchState((state) => state.isReady);
  const mix = useBenchState((state) => state.plan.mix);
  const [found, setFound] = useState<{ id: string; plane: RegionPlane }>();
  const asking = useRef(false);
  const wanted = useRef<{ region: Region; mix: Mix } | undefined>(undefined);
  useEffect(() => {
    wanted.current = region && { region, mix };
    const ask = async () => {
      const next = wanted.current;
      if (asking.current || !next || !isReady) return;
      asking.current = true;
      wanted.current = undefined;
      const plan = { ...store.getState().plan, regions: [next.region], passes: [], sets: [], mix: next.mix };
      const plane = await engine()?.region(plan, next.region.id);
      if (plane) setFound({ id: next.region.id, plane });
      // The picture goes before its lines: they may be a moment late.
      setTimeout(() => {
        asking.current = false;
        void ask();
      }, PAUSE_MS);
    };
    void ask();
  }, [region, mix, isReady, engine, store]);
  return region && found?.id === region.id ? found.plane : undefined;
}
