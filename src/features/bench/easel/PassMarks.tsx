"use client";
import type { Size } from "@/core/spatial/areaReduce";
import { useBenchState } from "../state/BenchContext";
import { chosenPass, givesStops } from "../state/inPlan";
import { ExposureLines } from "./ExposureLines";
import { LassoMark } from "./LassoMark";
import { faceOf } from "../passes/passFaces";
import { StrokeMarks } from "../passes/exposure/StrokeMarks";
import { useWorkingElsewhere } from "../state/useWorkingElsewhere";

/** The same of what lies on the print itself, wherever it is cut out. */
export function PrintMarks({ size }: { size: Size }) {
  const pass = useBenchState((state) => chosenPass(state)?.pass);
  const isWorking = useWorkingElsewhere();
  if (!pass) return null;
  const { OnPrint } = faceOf(pass.move);
  return OnPrint && !isWorking ? <OnPrint pass={pass} move={pass.move} size={size} /> : null;
}

/** What the pass in hand draws over the picture, each only while it is of use; nothing while the hand works in the panel. */
export function PassMarks({ size }: { size: Size }) {
  const pass = useBenchState((state) => chosenPass(state)?.pass);
  const tool = useBenchState((state) => state.tool);
  const showsStops = useBenchState((state) => state.showsStops);
  const isWorking = useWorkingElsewhere();
  if (!pass) return null;
  const { OnPicture } = faceOf(pass.move);
  return (
    <>
      {showsStops && givesStops(pass) && <ExposureLines pass={pass} size={size} />}
      {OnPicture && !isWorking && <OnPicture pass={pass} move={pass.move} size={size} />}
      {givesStops(pass) && tool === "clear-loop" && <LassoMark size={size} />}
      {givesStops(pass) && tool === "pick-strokes" && <StrokeMarks size={size} />}
    </>
  );
}
