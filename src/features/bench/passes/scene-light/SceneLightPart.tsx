"use client";
import type { Pass } from "@/core/passes/pass";
import { EXPOSURE_LIMIT, SURROUNDINGS_LIMIT, type SceneLightMove } from "@/core/passes/scene-light/move";
import { formatStops, parseStops } from "@/core/zones/zone";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import styles from "../../panels/Panel.module.css";

const SLIDERS = [
  { name: "exposure", label: "Exposure", limit: EXPOSURE_LIMIT },
  { name: "shadows", label: "Shadows", limit: SURROUNDINGS_LIMIT },
  { name: "lights", label: "Lights", limit: SURROUNDINGS_LIMIT },
] as const;

/** How the scene is lit, in stops: all of it, where it is dark, where it is light. */
export function SceneLightPart({ pass, move }: { pass: Pass; move: SceneLightMove }) {
  const { adjust } = useBench().store.getState();
  return (
    <Part title="Scene light" state={SLIDERS.every(({ name }) => move[name] === 0) ? "as found" : undefined}>
      {SLIDERS.map(({ name, label, limit }) => (
        <PassSlider
          key={name}
          pass={pass}
          label={label}
          value={move[name]}
          min={-limit}
          max={limit}
          step={0.05}
          rest={0}
          format={formatStops}
          parse={parseStops}
          onChange={(to) => adjust((plan) => withMove(plan, pass.id, { ...move, [name]: to }))}
        />
      ))}
      <p className={styles.hint}>
        Shadows and lights are told by what lies around a place, so that detail within them keeps its contrast and edges their sharpness.
        Nothing is pushed past white.
      </p>
    </Part>
  );
}
