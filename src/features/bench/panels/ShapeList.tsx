"use client";
import { CloseOutlined, DownOutlined, UpOutlined } from "@ant-design/icons";
import { Select, Switch } from "antd";
import {
  COMBINES,
  hasFeather,
  LEAST_TOLERANCE,
  MOST_TOLERANCE,
  type Combine,
  type Region,
  type Shape,
  type ShapeKind,
} from "@/core/region/region";
import { formatPercent, parsePercent } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustRegion, adjustShape, deleteShape } from "../regions/regionEdits";
import { StepSlider } from "./StepSlider";
import styles from "./Panel.module.css";

const KIND_WORDS: Record<ShapeKind, string> = {
  outline: "Loop",
  oval: "Oval",
  gradient: "Gradient",
  brush: "Brushed",
  likeness: "Likeness",
  picture: "Imported picture",
};
const COMBINE_WORDS: Record<Combine, string> = { add: "adds", subtract: "takes away", intersect: "keeps where both" };
/** Widest edge on the slider; wider ones are dragged in the picture. */
const WIDEST_EDGE = 0.3;
const WIDEST_TOLERANCE = 0.3;

/** The shapes of a region in the order they are laid on; the chosen one with what can be set. */
export function ShapeList({ region }: { region: Region }) {
  const { store } = useBench();
  const chosen = useBenchState((state) => state.chosenShape);
  const { commit, set } = store.getState();
  if (region.shapes.length === 0)
    return <p className={styles.hint}>Nothing drawn yet: the pass acts nowhere{region.invert ? " but everywhere, inverted" : ""}.</p>;
  const shift = (index: number, by: number) => {
    const to = index + by;
    adjustRegion(store, (now) => ({ ...now, shapes: now.shapes.toSpliced(index, 1).toSpliced(to, 0, now.shapes[index]!) }));
    commit(`Shapes of ${region.name} re-ordered`);
  };
  return (
    <ol className={styles.list} aria-label="Shapes">
      {region.shapes.map((shape, i) => {
        const isChosen = shape.id === chosen;
        return (
          <li key={shape.id} className={styles.shape} data-chosen={isChosen} data-testid={`shape-${i + 1}`}>
            <button
              type="button"
              className={styles.small}
              aria-pressed={isChosen}
              onClick={() => set({ chosenShape: isChosen ? undefined : shape.id, showsRegion: true })}
            >
              {shapeWords(shape)}
            </button>
            <Select
              size="small"
              variant="borderless"
              aria-label={`How shape ${i + 1} meets those before it`}
              value={shape.combine}
              options={COMBINES.map((value) => ({ value, label: COMBINE_WORDS[value] }))}
              onChange={(combine) => {
                adjustShape(store, shape.id, (now) => ({ ...now, combine }));
                commit(`Shape ${i + 1} ${COMBINE_WORDS[combine]} in ${region.name}`);
              }}
            />
            <button
              type="button"
              className={styles.small}
              disabled={i === 0}
              aria-label={`Shape ${i + 1} earlier`}
              onClick={() => shift(i, -1)}
            >
              <UpOutlined />
            </button>
            <button
              type="button"
              className={styles.small}
              disabled={i === region.shapes.length - 1}
              aria-label={`Shape ${i + 1} later`}
              onClick={() => shift(i, 1)}
            >
              <DownOutlined />
            </button>
            <button
              type="button"
              className={styles.small}
              aria-label={`Remove shape ${i + 1}`}
              onClick={() => {
                set({ chosenShape: shape.id });
                deleteShape(store);
              }}
            >
              <CloseOutlined />
            </button>
            {isChosen && shape.kind !== "brush" && shape.kind !== "picture" && <ShapeSettings shape={shape} regionName={region.name} />}
          </li>
        );
      })}
    </ol>
  );
}

function shapeWords(shape: Shape): string {
  if (shape.kind === "brush") return `Brushed, ${shape.strokes.length} ${shape.strokes.length === 1 ? "stroke" : "strokes"}`;
  return KIND_WORDS[shape.kind];
}

function ShapeSettings({ shape, regionName }: { shape: Shape; regionName: string }) {
  const { store } = useBench();
  const { commit } = store.getState();
  const change = (changed: Partial<Shape>) => adjustShape(store, shape.id, (now) => ({ ...now, ...changed }) as Shape);
  const toggle = (label: string, words: string, checked: boolean, changed: (on: boolean) => Partial<Shape>) => (
    <div className={styles.row}>
      <Switch
        size="small"
        checked={checked}
        aria-label={label}
        onChange={(on) => {
          change(changed(on));
          commit(`${label} ${on ? "on" : "off"} in ${regionName}`);
        }}
      />
      <span className={styles.hint}>{words}</span>
    </div>
  );
  const edge = (which: "inner" | "outer", value: number) => (
    <StepSlider
      label={which === "inner" ? "Inner edge" : "Outer edge"}
      value={value}
      min={0}
      max={WIDEST_EDGE}
      step={0.002}
      rest={0.02}
      format={(part) => `${(100 * part).toFixed(1)} %`}
      parse={parsePercent}
      onChange={(reach) => change({ [which]: reach })}
      says={(shown) => `${which === "inner" ? "Inner" : "Outer"} edge ${shown} in ${regionName}`}
    />
  );
  return (
    <div className={styles.shapeSettings}>
      {hasFeather(shape) && edge("inner", shape.inner)}
      {hasFeather(shape) && edge("outer", shape.outer)}
      {shape.kind === "gradient" && toggle("Two-sided", "Falls off to both sides", shape.twoSided, (twoSided) => ({ twoSided }))}
      {shape.kind === "likeness" && (
        <>
          <StepSlider
            label="Tolerance"
            value={shape.tolerance}
            min={LEAST_TOLERANCE}
            max={Math.min(WIDEST_TOLERANCE, MOST_TOLERANCE)}
            step={0.005}
            rest={0.08}
            format={(value) => formatPercent(value / WIDEST_TOLERANCE)}
            parse={(text) => {
              const part = parsePercent(text);
              return part === undefined ? undefined : part * WIDEST_TOLERANCE;
            }}
            onChange={(tolerance) => change({ tolerance })}
            says={(shown) => `Tolerance ${shown} in ${regionName}`}
          />
          {toggle(
            "Connected",
            shape.connected ? "Only what hangs together with it" : "Everywhere in the picture",
            shape.connected,
            (connected) => ({ connected }),
          )}
        </>
      )}
    </div>
  );
}
