"use client";
import { formatPercent, parsePercent } from "@/core/text/written";
import type { ExposureStroke } from "@/core/steps/placedStops";
import type { Pass } from "@/core/passes/pass";
import { MOST_CEILING } from "@/core/passes/exposure/exposure";
import type { ExposureMove } from "@/core/passes/exposure/move";
import { formatStops } from "@/core/zones/zone";
import { useBench, useBenchState } from "../../state/BenchContext";
import { LEAST_BRUSH, MOST_BRUSH } from "../../tools/brushSize";
import { adjustPicked, deletePicked } from "./pickedStrokes";
import { parseCeiling } from "../../panels/parseCeiling";
import { PassSlider } from "../../panels/PassSlider";
import { StrokePlaces } from "../../panels/StrokePlaces";
import styles from "../../panels/Panel.module.css";

/** The strokes by place, and what can be done with those that are picked: all at once, to the values of the one picked last. */
export function PickedStrokes({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const picked = useBenchState((state) => state.pickedStrokes);
  const last = move.strokes[picked.at(-1) ?? -1];
  return (
    <>
      <StrokePlaces strokes={move.strokes} />
      {last ? (
        <PickedEdits pass={pass} last={last} count={picked.length} />
      ) : (
        <p className={styles.hint}>
          Touch a stroke in the picture, or a part of it here; Ctrl takes one more. Dragging moves what is picked.
        </p>
      )}
    </>
  );
}

function PickedEdits({ pass, last, count }: { pass: Pass; last: ExposureStroke; count: number }) {
  const { store } = useBench();
  const { commit } = store.getState();
  const strokes = count === 1 ? "1 stroke" : `${count} strokes`;
  const slider = (
    key: "ceiling" | "radius" | "hardness",
    label: string,
    [min, max, step]: readonly [number, number, number],
    format: (value: number) => string,
  ) => (
    <PassSlider
      pass={pass}
      label={`Their ${label.toLowerCase()}`}
      words={`${label} of ${strokes}`}
      value={last[key]}
      min={min}
      max={max}
      step={step}
      rest={key === "ceiling" ? 0.5 : key === "radius" ? 0.06 : 0.1}
      format={format}
      parse={key === "ceiling" ? parseCeiling : parsePercent}
      onChange={(value) => adjustPicked(store, (stroke) => ({ ...stroke, [key]: value }))}
    />
  );
  return (
    <>
      <p className={styles.hint}>
        {strokes} picked, {last.erase ? "erasing" : last.burns ? "burning" : "dodging"}
      </p>
      {!last.erase && slider("ceiling", "Ceiling", [0, MOST_CEILING, 1 / 12], (stops) => formatStops(last.burns ? -stops : stops))}
      {slider("radius", "Size", [LEAST_BRUSH, MOST_BRUSH, 0.002], (value) => `${(100 * value).toFixed(1)} %`)}
      {slider("hardness", "Hardness", [0, 1, 0.01], formatPercent)}
      <div className={styles.row}>
        <button
          type="button"
          className={styles.chip}
          onClick={() => {
            adjustPicked(store, (stroke) => ({ ...stroke, burns: !stroke.burns }));
            commit(`Dodge and burn exchanged for ${strokes} in ${pass.name}`);
          }}
        >
          Dodge ↔ burn
        </button>
        <button type="button" className={styles.chip} onClick={() => deletePicked(store)}>
          Delete
        </button>
      </div>
    </>
  );
}
