"use client";
import { Switch } from "antd";
import { MOST_CEILING, MOST_STOPS, restingExposure } from "@/core/exposure/exposure";
import type { ExposureMove, Pass } from "@/core/plan/plan";
import { formatStops, zoneNumeral } from "@/core/zones/zone";
import { formatPercent, parsePercent, ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../BenchContext";
import { isExposing, withMove } from "../benchStore";
import { BrushSettings } from "./BrushSettings";
import { Part } from "./Panel";
import { PickedStrokes } from "./PickedStrokes";
import styles from "./Panel.module.css";

/** A twelfth of a stop: three steps to a quarter, four to a third. */
const STOP_STEP = 1 / 12;

/** Dodge and burn: the brush, the strength of what was painted, stops over all and by zone. */
export function ExposurePart({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const showsStops = useBenchState((state) => state.showsStops);
  const exposing = useBenchState((state) => state.exposing);
  const { adjust, commit, commitSoon, set } = store.getState();
  const change = (changed: Partial<ExposureMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const slider = (
    key: "dodge" | "burn" | "flat",
    label: string,
    [min, max, step, rest]: readonly [number, number, number, number],
    format: (value: number) => string,
  ) => (
    <ValueSlider
      label={label}
      value={move[key]}
      min={min}
      max={max}
      step={step}
      rest={rest}
      format={format}
      {...(key === "flat" ? {} : { parse: parsePercent })}
      onChange={(value) => change({ [key]: value })}
      onCommit={() => commit(`${label} ${format(move[key])} in ${pass.name}`)}
      onCommitSoon={() => commitSoon(`${label} ${format(move[key])} in ${pass.name}`)}
    />
  );
  const clear = (burns: boolean) => {
    change({ strokes: move.strokes.filter((stroke) => !stroke.erase && stroke.burns !== burns) });
    commit(`${burns ? "Burning" : "Dodging"} cleared in ${pass.name}`);
  };
  const count = (burns: boolean) => move.strokes.filter((stroke) => !stroke.erase && stroke.burns === burns).length;
  const moved = move.zones.flatMap((stops, zone) => (stops === 0 ? [] : [`${zoneNumeral(zone)} ${formatStops(stops)}`]));
  return (
    <Part title="Exposure" state={move.strokes.length > 0 ? `${count(false)} dodged, ${count(true)} burned` : undefined}>
      <div className={styles.row} role="group" aria-label="Paint with">
        {(["dodge", "burn"] as const).map((name) => (
          <button
            key={name}
            type="button"
            className={styles.chip}
            aria-pressed={tool === name}
            title={`${name === "dodge" ? "Lighten" : "Darken"} by brush; Alt brings back, Shift goes straight (${name[0]!.toUpperCase()})`}
            data-testid={`paint-${name}`}
            onClick={() => set({ tool: tool === name ? "read" : name })}
          >
            {name === "dodge" ? "○ Dodge" : "● Burn"}
          </button>
        ))}
        <button
          type="button"
          className={styles.chip}
          aria-pressed={tool === "pick-strokes"}
          disabled={move.strokes.length === 0}
          title="Touch a stroke in the picture to change, move or delete it"
          data-testid="pick-strokes"
          onClick={() => set({ tool: tool === "pick-strokes" ? "read" : "pick-strokes", pickedStrokes: [] })}
        >
          Pick strokes
        </button>
      </div>
      {tool === "pick-strokes" && <PickedStrokes pass={pass} move={move} />}
      {isExposing(tool) && (
        <>
          <BrushSettings of="exposing" />
          <ValueSlider
            label="Ceiling"
            value={exposing.ceiling}
            min={0}
            max={MOST_CEILING}
            step={STOP_STEP}
            rest={0.5}
            format={formatStops}
            onChange={(ceiling) => set({ exposing: { ...exposing, ceiling } })}
            onCommit={() => {}}
            onCommitSoon={() => {}}
          />
        </>
      )}
      {slider("dodge", "Dodging", [0, 2, 0.01, 1], formatPercent)}
      {slider("burn", "Burning", [0, 2, 0.01, 1], formatPercent)}
      {slider("flat", "Over all", [-MOST_STOPS, MOST_STOPS, STOP_STEP, 0], formatStops)}
      <p className={styles.hint}>
        {moved.length > 0 ? `By zone: ${moved.join(", ")}.` : "By zone: drag the marks between the rails up for light, down for dark."}
      </p>
      <div className={styles.row}>
        <Switch
          size="small"
          checked={move.endsHeld}
          aria-label="Protect both ends"
          onChange={(endsHeld) => {
            change({ endsHeld });
            commit(`Ends ${endsHeld ? "protected" : "open"} in ${pass.name}`);
          }}
        />
        <span className={styles.hint}>{move.endsHeld ? "Deepest black and bare paper are protected" : "All tones are exposed"}</span>
      </div>
      <div className={styles.row}>
        <Switch size="small" checked={showsStops} aria-label="Lines in thirds of a stop" onChange={(shown) => set({ showsStops: shown })} />
        <span className={styles.hint}>Lines in thirds of a stop over the picture</span>
      </div>
      <div className={styles.row}>
        <button type="button" className={styles.small} disabled={count(false) === 0} onClick={() => clear(false)}>
          Clear dodging
        </button>
        <button type="button" className={styles.small} disabled={count(true) === 0} onClick={() => clear(true)}>
          Clear burning
        </button>
        <button
          type="button"
          className={styles.small}
          disabled={moved.length === 0}
          onClick={() => {
            change({ zones: restingExposure().zones });
            commit(`Zones level in ${pass.name}`);
          }}
        >
          Level zones
        </button>
      </div>
    </Part>
  );
}
