"use client";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "./BenchContext";
import { chosenPass, givesStops } from "./benchStore";
import { EdgeBurnMarks } from "./EdgeBurnMarks";
import { ExposureLines } from "./ExposureLines";
import { HandworkMarks } from "./HandworkMarks";
import { LassoMark } from "./LassoMark";
import { StrokeMarks } from "./StrokeMarks";
import { useWorkingElsewhere } from "./useWorkingElsewhere";

/** What the pass in hand draws over the picture, each only while it is of use; nothing while the hand works in the panel. */
export function PassMarks({ size }: { size: Size }) {
  const pass = useBenchState((state) => chosenPass(state)?.pass);
  const tool = useBenchState((state) => state.tool);
  const showsStops = useBenchState((state) => state.showsStops);
  const showsRegion = useBenchState((state) => state.showsRegion);
  const showsHandwork = useBenchState((state) => state.showsHandwork);
  const isWorking = useWorkingElsewhere();
  if (!pass || !givesStops(pass)) return null;
  return (
    <>
      {showsStops && <ExposureLines pass={pass} size={size} />}
      {pass.move.kind === "edge-burn" && showsRegion && !isWorking && <EdgeBurnMarks pass={pass} move={pass.move} size={size} />}
      {pass.move.kind === "exposure" && showsHandwork && !isWorking && <HandworkMarks pass={pass} size={size} />}
      {tool === "clear-loop" && <LassoMark size={size} />}
      {tool === "pick-strokes" && <StrokeMarks size={size} />}
    </>
  );
}
