"use client";
import { MOST_CEILING } from "@/core/exposure/exposure";
import type { ExposureMove, Pass } from "@/core/plan/plan";
import { formatStops } from "@/core/zones/zone";
import { formatPercent, parsePercent, ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../BenchContext";
import { LEAST_BRUSH, MOST_BRUSH } from "../brushSize";
import { adjustPicked, deletePicked } from "../pickedStrokes";
import styles from "./Panel.module.css";

/** What can be done with the strokes that are picked: all at once, to the values of the one picked last. */
export function PickedStrokes({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const { store } = useBench();
  const picked = useBenchState((state) => state.pickedStrokes);
  const { commit, commitSoon } = store.getState();
  const last = move.strokes[picked.at(-1) ?? -1];
  if (!last) return <p className={styles.hint}>Touch a stroke in the picture; Ctrl takes one more. Dragging moves what is picked.</p>;
  const count = picked.length === 1 ? "1 stroke" : `${picked.length} strokes`;
  const slider = (
    key: "ceiling" | "radius" | "hardness",
    label: string,
    [min, max, step]: readonly [number, number, number],
    format: (value: number) => string,
  ) => (
    <ValueSlider
      label={`${label} of strokes`}
      value={last[key]}
      min={min}
      max={max}
      step={step}
      rest={key === "ceiling" ? 0.5 : key === "radius" ? 0.06 : 0.1}
      format={format}
      {...(key === "ceiling" ? {} : { parse: parsePercent })}
      onChange={(value) => adjustPicked(store, (stroke) => ({ ...stroke, [key]: value }))}
      onCommit={() => commit(`${label} of ${count} in ${pass.name}`)}
      onCommitSoon={() => commitSoon(`${label} of ${count} in ${pass.name}`)}
    />
  );
  return (
    <>
      <p className={styles.hint}>
        {count} picked, {last.erase ? "erasing" : last.burns ? "burning" : "dodging"}
      </p>
      {!last.erase && slider("ceiling", "Ceiling", [0, MOST_CEILING, 1 / 12], formatStops)}
      {slider("radius", "Size", [LEAST_BRUSH, MOST_BRUSH, 0.002], (value) => `${(100 * value).toFixed(1)} %`)}
      {slider("hardness", "Hardness", [0, 1, 0.01], formatPercent)}
      <div className={styles.row}>
        <button
          type="button"
          className={styles.chip}
          onClick={() => {
            adjustPicked(store, (stroke) => ({ ...stroke, burns: !stroke.burns }));
            commit(`Dodge and burn exchanged for ${count} in ${pass.name}`);
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
