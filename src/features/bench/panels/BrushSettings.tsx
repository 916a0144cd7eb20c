"use client";
import { formatPercent, parsePercent } from "@/core/text/written";
import { Select } from "antd";
import { PRESSURES, type Brush, type Pressure } from "@/core/brush/stroke";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../state/BenchContext";
import { LEAST_BRUSH, MOST_BRUSH } from "../tools/brushSize";
import { EraseSwitch } from "./EraseSwitch";

const PRESSURE_WORDS: Record<Pressure, string> = {
  none: "Pressure changes nothing",
  flow: "Pressure changes the flow",
  size: "Pressure changes the size",
  both: "Pressure changes flow and size",
};
const formatSize = (radius: number) => `${(100 * radius).toFixed(1)} %`;
/** A slider's middle is a small brush: the eye judges sizes by their ratio. */
const toScale = (radius: number) => Math.sqrt(radius);
const fromScale = (value: number) => value * value;
/** How the next stroke lays on. Not a part of the plan: each stroke keeps its own. */
export function BrushSettings({ of }: { of: "drawing" | "exposing" }) {
  const { store } = useBench();
  const brush: Brush = useBenchState((state) => state[of]);
  const steady = useBenchState((state) => state.steady);
  const change = (changed: Partial<Brush>) => {
    const { drawing, exposing, set } = store.getState();
    set(of === "drawing" ? { drawing: { ...drawing, ...changed } } : { exposing: { ...exposing, ...changed } });
  };
  const slider = (key: "hardness" | "flow", label: string, rest: number) => (
    <ValueSlider
      label={label}
      value={brush[key]}
      min={0}
      max={1}
      step={0.01}
      rest={rest}
      format={formatPercent}
      parse={parsePercent}
      onChange={(value) => change({ [key]: value })}
    />
  );
  return (
    <>
      <ValueSlider
        label="Size"
        value={toScale(brush.radius)}
        min={toScale(LEAST_BRUSH)}
        max={toScale(MOST_BRUSH)}
        step={0.005}
        rest={toScale(0.04)}
        format={(value) => formatSize(fromScale(value))}
        parse={(text) => {
          const radius = parsePercent(text);
          return radius === undefined ? undefined : toScale(Math.max(radius, 0));
        }}
        onChange={(value) => change({ radius: fromScale(value) })}
      />
      {slider("hardness", "Hardness", of === "drawing" ? 0.3 : 0.1)}
      {slider("flow", "Flow", of === "drawing" ? 0.5 : 0.08)}
      <ValueSlider
        label="Steady hand"
        value={steady}
        min={0}
        max={0.05}
        step={0.001}
        rest={0}
        format={(string) => (string === 0 ? "off" : formatSize(string))}
        parse={parsePercent}
        onChange={(string) => store.getState().set({ steady: string })}
      />
      <Select
        size="small"
        aria-label="What the pen's pressure changes"
        value={brush.pressure}
        options={PRESSURES.map((value) => ({ value, label: PRESSURE_WORDS[value] }))}
        onChange={(pressure) => change({ pressure })}
      />
      <EraseSwitch words={of === "drawing" ? "Takes away from where it acts (E)" : "Takes back what was dodged and burned (E)"} />
    </>
  );
}
