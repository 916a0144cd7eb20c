import { useEffect, useRef, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import type { PlaneOf, SmallPlane } from "@/engine/messages/messages";
import { useBench, useBenchState } from "../state/BenchContext";

const PAUSE_MS = 80;

/** A plane of a plan, small, following the hand: one question at a time, the newest next. `plan` holds only what the plane needs. */
export function useSmallPlane(plan: Plan | undefined, of: PlaneOf | undefined): SmallPlane | undefined {
  const { engine } = useBench();
  const isReady = useBenchState((state) => state.isReady);
  const [found, setFound] = useState<{ id: string; plane: SmallPlane }>();
  const asking = useRef(false);
  const wanted = useRef<{ plan: Plan; of: PlaneOf } | undefined>(undefined);
  const id = of && JSON.stringify(of);
  useEffect(() => {
    wanted.current = plan && id ? { plan, of: JSON.parse(id) as PlaneOf } : undefined;
    const ask = async () => {
      const next = wanted.current;
      if (asking.current || !next || !isReady) return;
      asking.current = true;
      wanted.current = undefined;
      const plane = await engine()?.plane(next.plan, next.of);
      if (plane) setFound({ id: JSON.stringify(next.of), plane });
      // The picture goes before its lines: they may be a moment late.
      setTimeout(() => {
        asking.current = false;
        void ask();
      }, PAUSE_MS);
    };
    void ask();
  }, [plan, id, isReady, engine]);
  return found?.id === id ? found?.plane : undefined;
}
