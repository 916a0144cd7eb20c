"use client";
import type { Pass } from "@/core/passes/pass";
import { separationFields } from "@/core/passes/separation/fields";
import type { SeparationMove } from "@/core/passes/separation/move";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { HueRanges } from "./HueRanges";
import { PartingPart } from "./PartingPart";

/** Colours drawn apart: all of them, ranges of hues, or one from another. */
export function SeparationPart({ pass, move }: { pass: Pass; move: SeparationMove }) {
  return (
    <>
      <Part title="Colours" state={move.saturation === 1 ? "as found" : undefined}>
        <FieldSliders pass={pass} move={move} fields={separationFields} />
      </Part>
      <PartingPart pass={pass} move={move} />
      <HueRanges pass={pass} move={move} />
    </>
  );
}
