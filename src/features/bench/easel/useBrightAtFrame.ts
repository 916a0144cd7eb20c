import { useMemo } from "react";
import { brightAtFrame } from "@/core/inspect/brightAtFrame";
import type { Patch } from "@/core/region/patches";
import type { SmallPlane } from "@/engine/messages/messages";
import { useBenchState } from "../state/BenchContext";
import { settledPlan } from "../state/inPlan";
import { useSmallPlane } from "./useSmallPlane";

/** Bright patches touching the frame of the print as it stands, with the plane their cells count on; undefined until they are known. */
export function useBrightAtFrame(): { plane: SmallPlane; patches: Patch[] } | undefined {
  const plan = useBenchState(settledPlan);
  const plane = useSmallPlane(plan, FINISHED);
  return useMemo(() => plane && { plane, patches: brightAtFrame(plane.plane, plane) }, [plane]);
}

const FINISHED = { tones: "finished" } as const;
