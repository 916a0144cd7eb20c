import { useMemo } from "react";
import { handworkPatches } from "@/core/inspect/handwork";
import type { Patch } from "@/core/region/patches";
import type { SmallPlane } from "@/engine/messages/messages";
import { useBenchState } from "../state/BenchContext";
import { settledPlan } from "../state/inPlan";
import { useSmallPlane } from "./useSmallPlane";

/** Where the handwork of a pass shows, with the plane its cells count on; undefined until it is known. */
export function useHandwork(passId: string): { plane: SmallPlane; patches: Patch[] } | undefined {
  const plan = useBenchState(settledPlan);
  const of = useMemo(() => ({ handwork: passId }), [passId]);
  const plane = useSmallPlane(plan, of);
  return useMemo(() => plane && { plane, patches: handworkPatches(plane.plane, plane) }, [plane]);
}
