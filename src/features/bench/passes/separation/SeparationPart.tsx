"use client";
import type { Pass } from "@/core/passes/pass";
import { MOST_SATURATION, type SeparationMove } from "@/core/passes/separation/move";
import { formatPercent, parsePercent } from "@/features/shared/ValueSlider";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { HueRanges } from "./HueRanges";
import { PartingPart } from "./PartingPart";

/** Colours drawn apart: all of them, ranges of hues, or one from another. */
export function SeparationPart({ pass, move }: { pass: Pass; move: SeparationMove }) {
  const { adjust } = useBench().store.getState();
  return (
    <>
      <Part title="Colours" state={move.saturation === 1 ? "as found" : undefined}>
        <PassSlider
          pass={pass}
          label="Saturation"
          value={move.saturation}
          min={0}
          max={MOST_SATURATION}
          step={0.01}
          rest={1}
          format={formatPercent}
          parse={parsePercent}
          onChange={(saturation) => adjust((plan) => withMove(plan, pass.id, { ...move, saturation }))}
        />
      </Part>
      <PartingPart pass={pass} move={move} />
      <HueRanges pass={pass} move={move} />
    </>
  );
}
