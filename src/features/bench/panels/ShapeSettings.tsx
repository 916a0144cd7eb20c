"use client";
import { formatPercent, parsePercent } from "@/core/text/written";
import { Switch } from "antd";
import { hasFeather, LEAST_TOLERANCE, MOST_TOLERANCE, RESTING_TOLERANCE, type Shape } from "@/core/region/region";
import { useBench } from "../state/BenchContext";
import { adjustShape } from "../regions/regionEdits";
import { LikenessPlaces } from "./LikenessPlaces";
import { StepSlider } from "./StepSlider";
import styles from "./Panel.module.css";

/** Widest edge on the slider; wider ones are dragged in the picture. */
const WIDEST_EDGE = 0.3;
const WIDEST_TOLERANCE = 0.3;

/** What can be set of the chosen shape. */
export function ShapeSettings({ shape, regionName }: { shape: Shape; regionName: string }) {
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
            rest={RESTING_TOLERANCE}
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
          <LikenessPlaces shape={shape} />
        </>
      )}
    </div>
  );
}
