"use client";
import type { Pass } from "@/core/passes/pass";
import { sceneLightFields } from "@/core/passes/scene-light/fields";
import type { SceneLightMove } from "@/core/passes/scene-light/move";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import styles from "../../panels/Panel.module.css";

/** How the scene is lit, in stops: all of it, where it is dark, where it is light. */
export function SceneLightPart({ pass, move }: { pass: Pass; move: SceneLightMove }) {
  return (
    <Part title="Scene light" state={move.exposure === 0 && move.shadows === 0 && move.lights === 0 ? "as found" : undefined}>
      <FieldSliders pass={pass} move={move} fields={sceneLightFields} />
      <p className={styles.hint}>
        Shadows and lights are told by what lies around a place, so that detail within them keeps its contrast and edges their sharpness.
        Nothing is pushed past white.
      </p>
    </Part>
  );
}
