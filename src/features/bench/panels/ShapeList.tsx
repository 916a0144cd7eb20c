"use client";
import { CloseOutlined, DownOutlined, UpOutlined } from "@ant-design/icons";
import { Select } from "antd";
import { COMBINES, type Combine, type Region, type Shape, type ShapeKind } from "@/core/region/region";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustRegion, adjustShape, deleteShape } from "../regions/regionEdits";
import { ShapeSettings } from "./ShapeSettings";
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
/** The shapes of a region in the order they are laid on; the chosen one with what can be set. */
export function ShapeList({ region }: { region: Region }) {
  const { store } = useBench();
  const chosen = useBenchState((state) => state.chosenShape);
  const { commit, set } = store.getState();
  if (region.shapes.length === 0)
    return (
      <p className={styles.hint}>
        {region.invert ? "Nothing drawn yet: inverted, it acts everywhere." : "Nothing drawn yet: it acts nowhere."} Brush where it acts,
        or, with Alt, where it does not.
      </p>
    );
  const shift = (index: number, by: number) => {
    const to = index + by;
    adjustRegion(store, (now) => ({ ...now, shapes: now.shapes.toSpliced(index, 1).toSpliced(to, 0, now.shapes[index]!) }));
    commit(`Shapes of ${region.name} re-ordered`);
  };
  return (
    <ol className={styles.list} aria-label="Shapes">
      {region.shapes[0]!.combine !== "add" && <li className={styles.hint}>The whole picture, of which</li>}
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
